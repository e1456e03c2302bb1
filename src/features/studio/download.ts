/** Has the browser save what is at an address, under the name that the server gives it. */
export function download(url: string): void {
  const link = document.createElement('a');
  link.href = url;
  link.download = '';
  link.click();
}
