import * as pdfjs from 'pdfjs-dist';
import worker from 'pdfjs-dist/build/pdf.worker.min.mjs?url';
import { useEffect, useRef, useState } from 'react';

pdfjs.GlobalWorkerOptions.workerSrc = worker;

/** A page of a PDF, drawn as it will be printed, to fit a box. */
export function PdfPage({
  pdf,
  width,
  height,
  page = 1,
  says,
  onPages,
}: {
  pdf: Blob;
  width: number;
  height: number;
  page?: number;
  says: string;
  onPages?: (n: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let gone = false;
    const draw = async () => {
      const task = pdfjs.getDocument({ data: await pdf.arrayBuffer() });
      const doc = await task.promise;
      if (gone) return;
      onPages?.(doc.numPages);
      const sheet = await doc.getPage(Math.min(page, doc.numPages));
      const natural = sheet.getViewport({ scale: 1 });
      const scale = Math.min(width / natural.width, height / natural.height);
      const ratio = window.devicePixelRatio || 1;
      const view = sheet.getViewport({ scale: scale * ratio });
      const el = canvas.current;
      if (gone || !el) return;
      el.width = view.width;
      el.height = view.height;
      el.style.width = `${view.width / ratio}px`;
      el.style.height = `${view.height / ratio}px`;
      await sheet.render({ canvas: el, viewport: view }).promise;
      el.dataset['drawn'] = String(page);
      void task.destroy();
    };
    draw().catch(() => !gone && setFailed(true));
    return () => {
      gone = true;
    };
  }, [pdf, width, height, page, onPages]);
  return failed ? (
    <p className="mid">The preview could not be drawn. The print itself is not touched by that.</p>
  ) : (
    <canvas ref={canvas} className="pdf-page" role="img" aria-label={says} />
  );
}
