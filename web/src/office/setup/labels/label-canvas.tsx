import { barcodeOf, fill, sampleRecord, type LabelDesign, type LabelElement } from '@vectrum/core/labels';
import type Konva from 'konva';
import { toCanvas } from 'bwip-js/browser';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Image, Layer, Line, Rect, Shape, Stage, Text, Transformer } from 'react-konva';
import { resized, snapped } from './editor-model';

interface Props {
  design: LabelDesign;
  selected: string | null;
  onSelect: (id: string | null) => void;
  onChange: (element: LabelElement) => void;
}
const WIDE = 560;
const HIGH = 360;

/** A barcode as it will look, drawn by the same writer that the print uses. */
function useBarcode(e: LabelElement, value: string): HTMLCanvasElement | null {
  return useMemo(() => {
    if (e.kind !== 'barcode') return null;
    const drawn = barcodeOf(e.symbology, value);
    if (!drawn) return null;
    const canvas = document.createElement('canvas');
    try {
      toCanvas(canvas, { bcid: drawn.writer, text: drawn.text, scale: 3, includetext: false });
      return canvas;
    } catch {
      return null;
    }
  }, [e, value]);
}

function ElementNode({
  e,
  scale,
  record,
  chosen,
  on,
}: {
  e: LabelElement;
  scale: number;
  record: Readonly<Record<string, string>>;
  chosen: boolean;
  on: object;
}) {
  const box = { x: e.xMm * scale, y: e.yMm * scale, width: e.wMm * scale, height: e.hMm * scale };
  const value = e.kind === 'barcode' ? fill(e.value, record) : '';
  const bars = useBarcode(e, value);
  const common = { ...box, id: e.id, name: 'element', draggable: true, ...on };
  const edge = chosen ? undefined : { stroke: 'rgb(0 0 0 / 0.18)', strokeWidth: 1 };
  switch (e.kind) {
    case 'text':
      return (
        <Text
          {...common}
          text={fill(e.text, record)}
          fontFamily={e.mono ? 'Atkinson Hyperlegible Mono Variable, monospace' : 'Atkinson Hyperlegible Next Variable, sans-serif'}
          fontStyle={e.bold ? 'bold' : 'normal'}
          fontSize={Math.max(6, Math.min(box.height / 1.2, (box.width / Math.max(1, fill(e.text, record).length)) * 1.75))}
          align={e.align === 'centre' ? 'center' : e.align}
          verticalAlign="middle"
          wrap="none"
          ellipsis
        />
      );
    case 'barcode': {
      const square = barcodeOf(e.symbology, value)?.square === true;
      const side = Math.min(box.width, box.height);
      const inner = square ? { width: side, height: side, x: box.x + (box.width - side) / 2, y: box.y + (box.height - side) / 2 } : box;
      return bars ? <Image {...common} {...inner} image={bars} /> : <Rect {...common} {...edge} dash={[4, 3]} />;
    }
    case 'arrow':
      return (
        <Shape
          {...common}
          fill="black"
          sceneFunc={(ctx, shape) => {
            const [w, h] = [shape.width(), shape.height()];
            const down = e.direction === 'down';
            const y = (share: number) => (down ? h - share * h : share * h);
            ctx.beginPath();
            [
              [0.5, 0],
              [1, 0.5],
              [0.68, 0.5],
              [0.68, 1],
              [0.32, 1],
              [0.32, 0.5],
              [0, 0.5],
            ].forEach(([px = 0, py = 0], i) => (i === 0 ? ctx.moveTo(px * w, y(py)) : ctx.lineTo(px * w, y(py))));
            ctx.closePath();
            ctx.fillStrokeShape(shape);
          }}
        />
      );
    case 'box':
      return <Rect {...common} stroke="black" strokeWidth={1.5} hitStrokeWidth={10} fillEnabled={false} />;
  }
}

/** The label to scale, with samples in its fields: elements are dragged and sized, and snap to each other. */
export function LabelCanvas({ design, selected, onSelect, onChange }: Props) {
  const stage = useRef<Konva.Stage>(null);
  const frame = useRef<Konva.Transformer>(null);
  const [guides, setGuides] = useState<{ x: number | null; y: number | null }>({ x: null, y: null });
  const { widthMm, heightMm } = design.media;
  const scale = Math.min(WIDE / widthMm, HIGH / heightMm);
  const record = sampleRecord(design.subject);
  useEffect(() => {
    const node = selected ? stage.current?.findOne(`#${selected}`) : undefined;
    frame.current?.nodes(node ? [node] : []);
    frame.current?.getLayer()?.batchDraw();
  }, [selected, design]);
  return (
    <Stage
      ref={stage}
      width={widthMm * scale + 2}
      height={heightMm * scale + 2}
      className="label-stage"
      onMouseDown={(e) => e.target.name() !== 'element' && e.target.getParent()?.className !== 'Transformer' && onSelect(null)}
    >
      <Layer x={1} y={1}>
        <Rect width={widthMm * scale} height={heightMm * scale} fill="white" stroke="black" strokeWidth={1} />
        {design.elements.map((e) => (
          <ElementNode
            key={e.id}
            e={e}
            scale={scale}
            record={record}
            chosen={e.id === selected}
            on={{
              onMouseDown: () => onSelect(e.id),
              onTap: () => onSelect(e.id),
              onDragMove: (event: Konva.KonvaEventObject<DragEvent>) => {
                const at = snapped(design, e.id, event.target.x() / scale, event.target.y() / scale);
                setGuides({ x: at.guideX, y: at.guideY });
              },
              onDragEnd: (event: Konva.KonvaEventObject<DragEvent>) => {
                const at = snapped(design, e.id, event.target.x() / scale, event.target.y() / scale);
                event.target.position({ x: at.xMm * scale, y: at.yMm * scale });
                setGuides({ x: null, y: null });
                onChange({ ...e, xMm: at.xMm, yMm: at.yMm });
              },
              onTransformEnd: (event: Konva.KonvaEventObject<Event>) => {
                const node = event.target;
                const moved = {
                  ...e,
                  xMm: Math.max(0, Math.round((node.x() / scale) * 2) / 2),
                  yMm: Math.max(0, Math.round((node.y() / scale) * 2) / 2),
                };
                const next = resized(design, moved, (node.width() * node.scaleX()) / scale, (node.height() * node.scaleY()) / scale);
                node.scale({ x: 1, y: 1 });
                onChange(next);
              },
            }}
          />
        ))}
        {guides.x !== null && (
          <Line
            points={[guides.x * scale, 0, guides.x * scale, heightMm * scale]}
            stroke="black"
            strokeWidth={1}
            dash={[3, 3]}
            listening={false}
          />
        )}
        {guides.y !== null && (
          <Line
            points={[0, guides.y * scale, widthMm * scale, guides.y * scale]}
            stroke="black"
            strokeWidth={1}
            dash={[3, 3]}
            listening={false}
          />
        )}
        <Transformer
          ref={frame}
          rotateEnabled={false}
          flipEnabled={false}
          borderStroke="black"
          anchorStroke="black"
          anchorFill="#ffe14d"
          anchorSize={11}
          keepRatio={false}
        />
      </Layer>
    </Stage>
  );
}
