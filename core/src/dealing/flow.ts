import { sure } from '../lists/index.js';

/** A way for units from one node to another. The n-th unit on it costs `each + rising · (2n − 1)`, so that `rising` alone makes Σ n² of what flows. */
export interface Way {
  readonly from: number;
  readonly to: number;
  /** Units at most. */
  readonly most: number;
  readonly each?: number;
  readonly rising?: number;
  /** Units that are there whatever flows; they make the next ones dearer. */
  readonly already?: number;
}

/** The units on every way at the least cost, as many as can go from the source to the sink. Costs are whole numbers, those that rise not falling,
 * so a shortest way at a time reaches the least (successive shortest paths: Ahuja, Magnanti and Orlin, Network Flows, §9.7 and §14.5).
 * @returns units on each way, in the order of `ways`. */
export function leastCostFlow(nodes: number, ways: readonly Way[], source: number, sink: number): number[] {
  const flow = ways.map(() => 0);
  const out: number[][] = Array.from({ length: nodes }, () => []); // 2·way: forward, 2·way + 1: back
  for (const [at, way] of ways.entries()) {
    sure(out[way.from]).push(2 * at);
    sure(out[way.to]).push(2 * at + 1);
  }
  for (;;) {
    const steps = shortestPath(ways, flow, out, source, sink);
    if (!steps) return flow;
    for (const step of steps) flow[step >> 1] = sure(flow[step >> 1]) + (step % 2 === 0 ? 1 : -1);
  }
}

/** The cost of one unit more (or one less) on a way; null: it is full (or empty). */
function costOfStep(way: Way, flow: number, isForward: boolean): number | null {
  const { each = 0, rising = 0, already = 0 } = way;
  if (isForward) return flow < way.most ? each + rising * (2 * (already + flow) + 1) : null;
  return flow > 0 ? -(each + rising * (2 * (already + flow) - 1)) : null;
}

/** Bellman and Ford's, by a queue; null: the sink is not reached any more. */
function shortestPath(
  ways: readonly Way[],
  flow: readonly number[],
  out: readonly (readonly number[])[],
  source: number,
  sink: number,
): number[] | null {
  const far = out.map(() => Infinity);
  const by = out.map(() => -1);
  const isWaiting = out.map(() => false);
  far[source] = 0;
  const queue = [source];
  for (let head = 0; head < queue.length; head += 1) {
    const node = sure(queue[head]);
    isWaiting[node] = false;
    for (const step of sure(out[node])) {
      const way = sure(ways[step >> 1]);
      const cost = costOfStep(way, sure(flow[step >> 1]), step % 2 === 0);
      if (cost === null) continue;
      const next = step % 2 === 0 ? way.to : way.from;
      const reached = sure(far[node]) + cost;
      if (reached >= sure(far[next])) continue;
      far[next] = reached;
      by[next] = step;
      if (isWaiting[next]) continue;
      isWaiting[next] = true;
      queue.push(next);
    }
  }
  if (far[sink] === Infinity) return null;
  const steps: number[] = [];
  for (let node = sink; node !== source;) {
    const step = sure(by[node]);
    steps.push(step);
    const way = sure(ways[step >> 1]);
    node = step % 2 === 0 ? way.from : way.to;
  }
  return steps;
}
