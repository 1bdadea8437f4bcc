const BIN = /^([A-Z]+)-(\d+)-(\d+)$/;

/** Where to go, in the highlighter: aisle, bay, level as large as the phone allows, or the place's name. */
export function BinLabel({ code, way }: { code: string; way: string }) {
  const parts = BIN.exec(code);
  return (
    <div
      className={`bin ${parts ? '' : 'word'}`}
      aria-label={parts ? `Bin ${code}: aisle ${parts[1]}, bay ${parts[2]}, level ${parts[3]}` : code}
    >
      {parts ? (
        ['Aisle', 'Bay', 'Level'].map((cap, i) => (
          <div key={cap}>
            <span className="cap">{cap}</span>
            <b>{parts[i + 1]}</b>
          </div>
        ))
      ) : (
        <div>
          <b>{code}</b>
        </div>
      )}
      <div className="way">{way}</div>
    </div>
  );
}
