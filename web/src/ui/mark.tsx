import { Link } from 'react-router';

/** The house mark. */
function Mark() {
  return (
    <svg width="19" height="19" viewBox="0 0 20 20" aria-hidden>
      <path d="M0 2h5.2l5 11.2L14.6 2.9 12.2 2.9 16.4 0 20 4.3 17.9 4.3 12.1 18H8z" fill="currentColor" />
    </svg>
  );
}

/** The mark with the name, which leads to the start; on the door it leads nowhere. */
export function MarkName({ to }: { to?: string }) {
  if (to === undefined)
    return (
      <span className="mark-name" style={{ width: 'auto' }}>
        <Mark /> Vectrum
      </span>
    );
  return (
    <Link to={to} className="mark-name">
      <Mark /> Vectrum
    </Link>
  );
}
