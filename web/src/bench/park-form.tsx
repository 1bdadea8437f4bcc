import { useState } from 'react';
import { Button, TextButton } from '../ui/button';
import { Input } from '../ui/input';

/** Says why an order has to wait at the table, and parks it. */
export function ParkForm({ onPark, onClose }: { onPark: (why: string) => void; onClose: () => void }) {
  const [why, setWhy] = useState('');
  return (
    <form
      className="flex items-center gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onPark(why.trim());
      }}
    >
      <Input
        aria-label="Why it waits"
        placeholder="why it waits"
        maxLength={80}
        autoFocus
        value={why}
        onChange={(e) => setWhy(e.target.value)}
      />
      <Button type="submit">Park it</Button>
      <TextButton type="button" onClick={onClose}>
        Leave it
      </TextButton>
    </form>
  );
}
