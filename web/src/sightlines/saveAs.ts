/** Hands the person a file that was made here. */
export function saveAs(name: string, type: string, content: string): void {
  const address = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  // Once the browser has taken it.
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
