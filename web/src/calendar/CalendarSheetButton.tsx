import { CalendarSync } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../look/index.js';
import { CalendarSheet } from './CalendarSheet.js';

/** The way from one event to all that is to come. */
export function CalendarSheetButton() {
  const [isOpen, setIsOpen] = useState(false);
  return (
    <>
      <Button onPress={() => setIsOpen(true)}>
        <CalendarSync size={16} aria-hidden="true" />
        Keep my calendar up to date
      </Button>
      {isOpen && <CalendarSheet onClose={() => setIsOpen(false)} />}
    </>
  );
}
