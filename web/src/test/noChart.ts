/** Stands in where nothing can be drawn. */
export default class NoChart {
  render = () => Promise.resolve();
  destroy = () => undefined;
}
