import { useEffect, useState } from 'react';

const query = '(max-width: 700px)';

/** Whether the page is as narrow as a phone's, now and after it was turned. */
export function useIsNarrow(): boolean {
  const [isNarrow, setNarrow] = useState(() => matchMedia(query).matches);
  useEffect(() => {
    const media = matchMedia(query);
    const hear = () => setNarrow(media.matches);
    media.addEventListener('change', hear);
    return () => media.removeEventListener('change', hear);
  }, []);
  return isNarrow;
}
