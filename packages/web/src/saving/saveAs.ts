/** Hands a file to the browser to be kept. */
export function saveAs(name: string, type: string, content: BlobPart): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([content], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

export const CSV_TYPE = 'text/csv;charset=utf-8';
