import { useState } from 'react';
import { useCourse } from '../course/index.js';
import { Button } from '../look/index.js';
import type { SightColumn } from './columns.js';
import { csvOf, tableOf } from './csv.js';
import type { SightLine } from './lines.js';
import { Printed } from './Printed.js';
import { saveAs } from './saveAs.js';

interface SightOutputProps {
  readonly lines: readonly SightLine[];
  readonly columns: readonly SightColumn[];
  /** The moment that is shown, in words. */
  readonly when: string;
}

/** The matrix as it is shown, as a file or on paper. */
export function SightOutput({ lines, columns, when }: SightOutputProps) {
  const { course, dates } = useCourse();
  // Not every browser tells when it is done, so that a second press asks anew.
  const [printing, setPrinting] = useState(0);
  const isEmpty = lines.length === 0 || columns.length === 0;
  const save = () =>
    saveAs('sightlines.csv', 'text/csv;charset=utf-8', csvOf(tableOf(lines, columns, dates)));
  return (
    <>
      <Button isDisabled={isEmpty} onPress={save}>
        Export as CSV
      </Button>
      <Button isDisabled={isEmpty} onPress={() => setPrinting(printing + 1)}>
        Print
      </Button>
      {printing > 0 && (
        <Printed
          key={printing}
          title={`${course.code} · Sightlines`}
          when={when}
          lines={lines}
          columns={columns}
          onDone={() => setPrinting(0)}
        />
      )}
    </>
  );
}
