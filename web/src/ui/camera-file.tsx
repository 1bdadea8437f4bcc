/** The camera of the device, or a picture that it has: stands unseen in a label. The same picture can be chosen again. */
export function CameraFile({ onFile }: { onFile: (file: File) => void }) {
  return (
    <input
      type="file"
      accept="image/*"
      capture="environment"
      className="sr-only"
      onChange={(e) => {
        const file = e.target.files?.[0];
        if (file) onFile(file);
        e.target.value = '';
      }}
    />
  );
}
