/** The way to the picture that somebody took of what they did. */
export function PictureOf({ act }: { act: string }) {
  return (
    <a className="whitespace-nowrap" href={`/api/acts/${act}/picture`} target="_blank" rel="noreferrer">
      picture
    </a>
  );
}
