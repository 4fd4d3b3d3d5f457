export interface FileInputProps {
  readonly label: string;
  readonly accept: string;
  readonly onText: (name: string, text: string) => void;
}

/** A file chosen by a person, read as text; the same one may be chosen again. */
export function FileInput({ label, accept, onText }: FileInputProps) {
  return (
    <input
      type="file"
      accept={accept}
      aria-label={label}
      onChange={(event) => {
        const file = event.target.files?.[0];
        event.target.value = '';
        if (file) void file.text().then((text) => onText(file.name, text));
      }}
    />
  );
}
