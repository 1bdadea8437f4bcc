import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** The face that a page wears, by its address. */
const faceAt = (path: string) => (path.startsWith('/floor') ? 'floor' : path.startsWith('/bench') ? 'bench' : 'office');

/** Something that must be answered before the page goes on; the page stands behind it as it was. */
export function Dialog({
  title,
  about,
  onClose,
  children,
}: {
  title: string;
  about?: ReactNode;
  /** Where it can be left without an answer. */
  onClose?: () => void;
  children: ReactNode;
}) {
  return (
    <Radix.Root open onOpenChange={(open) => !open && onClose?.()}>
      <Radix.Portal>
        <div data-face={faceAt(window.location.pathname)}>
          <Radix.Overlay className="fixed inset-0 z-40 bg-black/45" />
          <Radix.Content
            className="fixed z-50 left-1/2 top-[14vh] -translate-x-1/2 w-[440px] max-w-[calc(100vw-24px)] max-h-[80vh] overflow-y-auto p-5 bg-sheet text-ink border-[1.5px] border-ink"
            onEscapeKeyDown={(e) => !onClose && e.preventDefault()}
            onPointerDownOutside={(e) => e.preventDefault()}
          >
            <Radix.Title className="text-head font-bold">{title}</Radix.Title>
            <Radix.Description asChild>
              <div className="mid mt-1">{about}</div>
            </Radix.Description>
            {children}
          </Radix.Content>
        </div>
      </Radix.Portal>
    </Radix.Root>
  );
}
