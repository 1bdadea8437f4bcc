import { useScanClaim } from '../../scanner/scan-claim';
import { ScannerTest } from '../../scanner/scanner-test';
import { BlockHead, Page } from '../../ui/page';

const nothing = () => undefined;

/** What the scanner at this screen sends, told by a test card. */
export function ScannerPage() {
  // Scans mean the card here.
  useScanClaim(nothing);
  return (
    <Page aria-label="Scanner">
      <h1 className="sr">Scanner</h1>
      <BlockHead>
        <h2>Test card</h2>
        <span className="note">Shows what the scanner of this device sends. Other devices learn theirs on their own screen.</span>
      </BlockHead>
      <div className="mt-4">
        <ScannerTest />
      </div>
    </Page>
  );
}
