/** A button that chooses a file: what is chosen is handed on at once, and the same one can be chosen again. */
import { useId } from "react";

interface Props {
  /** What files are offered, as an input's `accept` has it. */
  accept: string;
  disabled?: boolean;
  onFile: (file: File) => void;
  children: string;
}

export function FileButton({ accept, disabled = false, onFile, children }: Props) {
  const id = useId();
  return (
    <label htmlFor={id} className={`act ${disabled ? "pointer-events-none opacity-55" : ""} focus-within:outline-2`}>
      {children}
      <input
        id={id}
        type="file"
        accept={accept}
        disabled={disabled}
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onFile(file);
          e.target.value = "";
        }}
      />
    </label>
  );
}
