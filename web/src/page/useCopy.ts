import { useNotice } from '../look/index.js';

/** Copies text, and says so; where the browser does not let a page copy, it says how else.
 * @param said after it was copied: "Link copied".
 * @param byHand what to do otherwise: "Copy it from the address bar." */
export function useCopy() {
  const notice = useNotice();
  return async (text: string, said: string, byHand: string): Promise<void> => {
    notice((await isCopied(text)) ? said : `Your browser does not let this page copy. ${byHand}`);
  };
}

async function isCopied(text: string): Promise<boolean> {
  // There is no clipboard for a page that came over plain http.
  const clipboard = navigator.clipboard as Clipboard | undefined;
  try {
    await clipboard?.writeText(text);
    return clipboard !== undefined;
  } catch {
    return false;
  }
}
