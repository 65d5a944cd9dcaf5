/** Gives the user a file that the page made. */
export function saveFile(name: string, text: string, type: string): void {
  // A spreadsheet takes a CSV file for UTF-8 only where it begins with this mark; without it, accents are garbled.
  const mark = type === 'text/csv' ? '\ufeff' : '';
  const url = URL.createObjectURL(new Blob([mark, text], { type: `${type};charset=utf-8` }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}
