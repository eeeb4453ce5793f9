/** Lets the browser save what lies at an address under a name. */
export function saveFile(url: string, name: string): void {
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
}
