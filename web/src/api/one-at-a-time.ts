/**
 * Runs a piece of work when it is called for, gathered for a moment, and never twice at once: calls while it runs lead to one
 * more run after it. So a server that is slow is asked less often, not more. Two runs begin at least `everyMs` apart, so that one
 * who watches fifty others at work does not ask as often as they act.
 */
export function oneAtATime(work: () => Promise<unknown>, gatherMs: number, everyMs: number): { call: () => void; stop: () => void } {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let running = false;
  let again = false;
  let stopped = false;
  let begun = -Infinity;
  const call = () => {
    if (stopped) return;
    if (running) again = true;
    else timer ??= setTimeout(() => void run(), Math.max(gatherMs, begun + everyMs - Date.now()));
  };
  const run = async () => {
    timer = undefined;
    running = true;
    begun = Date.now();
    again = false;
    await work().catch(() => undefined);
    running = false;
    if (again) call();
  };
  return {
    call,
    stop: () => {
      stopped = true;
      clearTimeout(timer);
    },
  };
}
