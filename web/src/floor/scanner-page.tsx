import { Link } from 'react-router';
import { ScannerTest } from '../scanner/scanner-test';
import { usePageScan } from './scan-context';
import { Ask, PhoneHead } from '../ui/phone/parts';

const nothing = () => undefined;

/** What the scanner in the hand sends, told by a test card. */
export function FloorScannerPage() {
  // Scans mean the card here.
  usePageScan(nothing);
  return (
    <>
      <PhoneHead>
        <Link to="/floor" className="underline grid place-items-center min-h-[44px] -my-3">
          Back
        </Link>
      </PhoneHead>
      <Ask>Scan the test card</Ask>
      <div className="px-[18px] py-4">
        <ScannerTest />
      </div>
    </>
  );
}
