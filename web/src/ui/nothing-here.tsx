import { Link } from 'react-router';

/** An address that leads nowhere. */
export function NothingHere() {
  return (
    <div className="door" data-face="office">
      <main className="door-sheet one">
        <h1>There is nothing at this address</h1>
        <p className="mid">
          Go to{' '}
          <Link to="/" className="act-link">
            Now
          </Link>
          , or scan a code there to open its record.
        </p>
      </main>
    </div>
  );
}
