/** Lets the person choose a local file. */
export function chooseFile(accept: string, taken: (file: File) => void): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = accept;
  input.onchange = () => {
    const file = input.files?.[0];
    if (file) taken(file);
  };
  input.click();
}

/** Lets the person choose any number of local files. */
export function chooseFiles(accept: string, taken: (files: readonly File[]) => void): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = accept;
  input.multiple = true;
  input.onchange = () => {
    const files = [...(input.files ?? [])];
    if (files.length > 0) taken(files);
  };
  input.click();
}

/** Offers a file made here as a download. */
export function saveFile(name: string, content: string | Uint8Array, type: string): void {
  const url = URL.createObjectURL(
    new Blob([typeof content === 'string' ? content : Uint8Array.from(content)], { type }),
  );
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}
