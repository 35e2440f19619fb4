/** Fetches a file as the browser fetches files. */
export function fetchFile(address: string, name: string): void {
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
}
