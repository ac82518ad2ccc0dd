export interface FileKeyProps {
  label: string;
  accept: string;
  /** The name of the file field, where it is not the label. */
  field?: string;
  multiple?: boolean;
  onFiles: (files: File[]) => void;
}

/** A key that takes files. */
export function FileKey({ label, accept, field, multiple, onFiles }: FileKeyProps) {
  return (
    <label className="btn btn-outline-primary">
      {label}
      <input
        type="file"
        className="visually-hidden"
        aria-label={field ?? label}
        accept={accept}
        multiple={multiple}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = "";
          if (files.length > 0) onFiles(files);
        }}
      />
    </label>
  );
}
