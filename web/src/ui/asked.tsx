import { useSearchParams } from 'react-router';
import { Input } from './input';

/** What a page is asked for, kept in its address so that it can be sent to somebody: read by name, and put; `usual` stands for nothing asked. */
export function useAsked(): { asked: (name: string) => string; put: (name: string, value: string, usual?: string) => void } {
  const [params, setParams] = useSearchParams();
  return {
    asked: (name) => params.get(name) ?? '',
    put: (name, value, usual = '') =>
      setParams(
        (was) => {
          if (value === usual || value === '') was.delete(name);
          else was.set(name, value);
          return was;
        },
        { replace: true },
      ),
  };
}

/** From which day to which; both count, and either may be left open. */
export function Days({ asked, put, says = 'from' }: ReturnType<typeof useAsked> & { says?: string }) {
  return (
    <>
      <label className="flex gap-2 items-center">
        {says}{' '}
        <Input type="date" className="w-[150px]" aria-label="From" value={asked('from')} onChange={(e) => put('from', e.target.value)} />
      </label>
      <label className="flex gap-2 items-center">
        to <Input type="date" className="w-[150px]" aria-label="To" value={asked('to')} onChange={(e) => put('to', e.target.value)} />
      </label>
    </>
  );
}
