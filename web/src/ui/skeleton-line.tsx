/** One line that is still to come. */
export const SkeletonLine = ({ width, apart }: { width: number | string; apart?: number }) => (
  <span className="skel" style={{ width, ...(apart === undefined ? {} : { marginBlock: apart }) }} />
);
