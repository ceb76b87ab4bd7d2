import { Dialog, DialogTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import type { ImportPreview } from '@jigsaw/contract/import';
import { counted } from '@jigsaw/core/text';
import { Button, Choice, Popup, Small } from '../look/index.js';

const Skipped = styled.ul`
  margin: 0;
  padding: 8px 12px;
  max-width: 460px;
  max-height: 320px;
  overflow: auto;
  list-style: none;
  li {
    padding: 3px 0;
  }
`;

type Place = NonNullable<ImportPreview['place']>;
interface ImportPlaceProps {
  readonly place: Place;
  readonly onChoose: (chosen: { readonly sheet: number; readonly headingLine: number | null }) => void;
}

const noHeadings = '0';

/** In which sheet and under which headings the people were found, to be chosen otherwise, and the rows that were passed over. */
export function ImportPlace({ place, onChoose }: ImportPlaceProps) {
  const { sheets, sheet, headingLine, firstRows, skipped } = place;
  return (
    <>
      {sheets.length > 1 && (
        <Choice
          label="Sheet"
          isLabelHidden
          value={String(sheet)}
          choices={sheets.map((each, at) => ({
            id: String(at),
            label: `Sheet ${each.name.slice(0, 20)}`,
          }))}
          onChange={(chosen) => onChoose({ sheet: Number(chosen), headingLine: null })}
        />
      )}
      {firstRows.length > 0 && (
        <Choice
          label="Headings"
          isLabelHidden
          value={String(headingLine ?? noHeadings)}
          choices={[
            ...firstRows.map((row) => ({
              id: String(row.line),
              label: `Headings in line ${row.line}: ${row.text.slice(0, 16)}`,
            })),
            // Headings further down than any row that is offered were found, not chosen.
            ...(headingLine !== null && firstRows.every((row) => row.line !== headingLine)
              ? [{ id: String(headingLine), label: `Headings in line ${headingLine}` }]
              : []),
            { id: noHeadings, label: 'No headings' },
          ]}
          onChange={(line) => onChoose({ sheet, headingLine: Number(line) })}
        />
      )}
      {skipped.length > 0 && (
        <DialogTrigger>
          <Button kind="quiet">
            {counted(skipped.length, firstRows.length > 0 ? 'row' : 'line')} skipped…
          </Button>
          <Popup placement="bottom end">
            <Dialog aria-label="Skipped rows">
              <Skipped>
                {skipped.map((row) => (
                  <li key={`${row.line} ${row.because}`}>
                    Line {row.line}: {row.text} <Small>{reasons[row.because]}</Small>
                  </li>
                ))}
              </Skipped>
            </Dialog>
          </Popup>
        </DialogTrigger>
      )}
    </>
  );
}

const reasons: Readonly<Record<Place['skipped'][number]['because'], string>> = {
  'above-headings': 'above the headings',
  'headings-again': 'the headings again',
  total: 'a total',
  band: 'a title between the rows',
  signature: 'a signature',
  words: 'no person',
  beside: 'behind an address',
};
