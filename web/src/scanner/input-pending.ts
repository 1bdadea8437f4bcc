/** Whether keys wait behind a busy page: a run of them is not over then, however long none came. */
export function inputIsPending(): boolean {
  const { scheduling } = navigator as { scheduling?: { isInputPending?: () => boolean } };
  return scheduling?.isInputPending?.() ?? false;
}
