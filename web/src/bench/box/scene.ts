import type { Placement, Size } from '@vectrum/core/cartons';
import {
  AmbientLight,
  BoxGeometry,
  type BufferGeometry,
  Color,
  DirectionalLight,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  OrthographicCamera,
  Scene,
  Vector3,
  WebGLRenderer,
} from 'three';

/** How one unit is drawn: in the box, to be laid next, or still to come. */
export type Look = 'in' | 'next' | 'later';

/** Where the number of a unit stands on the picture, in pixels. */
export interface Mark {
  x: number;
  y: number;
  good: number;
}

const MARGIN = 1.12;
const GAP_MM = 1.5;
const MARK_PX = 18;
/** What is still to come is drawn in outline, unless there is so much of it that nothing could be told apart. */
const MOST_GHOSTS = 60;

/**
 * Draws a box from its corner, open at the front, with what lies in it, and says where the number of each unit goes. Throws where the
 * device draws no such pictures.
 */
export class BoxDrawing {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 1, 10_000);
  private goods = new Group();

  constructor(
    canvas: HTMLCanvasElement,
    private readonly inner: Size,
    private readonly width: number,
    private readonly height: number,
  ) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.renderer.setPixelRatio(window.devicePixelRatio);
    this.renderer.setSize(width, height, false);
    const light = new DirectionalLight(0xffffff, 1.6);
    light.position.set(-0.2, 1, 0.7);
    this.scene.add(new AmbientLight(0xffffff, 2), light);
    this.frame(width / height);
    this.scene.add(this.box(), this.goods);
  }

  /** Draws these units. Returns where the numbers of those that can be seen from above stand. */
  show(units: readonly (Placement & { look: Look })[]): Mark[] {
    this.scene.remove(this.goods);
    dispose(this.goods);
    this.goods = new Group();
    const ghosts = units.length <= MOST_GHOSTS;
    for (const unit of units) if (ghosts || unit.look !== 'later') this.goods.add(this.unit(unit));
    this.scene.add(this.goods);
    this.renderer.render(this.scene, this.camera);
    const marks: Mark[] = [];
    for (const u of units) {
      if (u.look === 'later' || units.some((o) => o !== u && o.look !== 'later' && covers(o, u))) continue;
      const seen = new Vector3(...this.at(u.atMm[0] + u.sizeMm[0] / 2, u.atMm[1] + u.sizeMm[1] / 2, u.atMm[2] + u.sizeMm[2])).project(
        this.camera,
      );
      const mark = { x: ((seen.x + 1) / 2) * this.width, y: ((1 - seen.y) / 2) * this.height, good: u.good };
      // Thin things side by side would print over one another.
      if (!marks.some((m) => m.good === mark.good && Math.hypot(m.x - mark.x, m.y - mark.y) < MARK_PX)) marks.push(mark);
    }
    return marks;
  }

  end(): void {
    dispose(this.scene);
    this.renderer.dispose();
  }

  /** Length lies to the right, width to the back, height is up; the origin is the box's middle. */
  private at(l: number, w: number, h: number): [number, number, number] {
    return [l - this.inner[0] / 2, h - this.inner[2] / 2, this.inner[1] / 2 - w];
  }

  private frame(aspect: number): void {
    this.camera.position.set(-1000, 900, 1000);
    this.camera.lookAt(0, 0, 0);
    this.camera.updateMatrixWorld();
    const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((n) =>
      new Vector3(...this.at(n & 1 ? this.inner[0] : 0, n & 2 ? this.inner[1] : 0, n & 4 ? this.inner[2] : 0)).applyMatrix4(
        this.camera.matrixWorldInverse,
      ),
    );
    const half = (pick: (v: Vector3) => number) => Math.max(...corners.map((c) => Math.abs(pick(c)))) * MARGIN;
    const height = Math.max(
      half((v) => v.y),
      half((v) => v.x) / aspect,
    );
    this.camera.top = height;
    this.camera.bottom = -height;
    this.camera.right = height * aspect;
    this.camera.left = -height * aspect;
    this.camera.updateProjectionMatrix();
  }

  /** The floor and the two walls that face the eye, and the edges of all. */
  private box(): Group {
    const [l, w, h] = this.inner;
    const group = new Group();
    const walls: [Size, Size, string][] = [
      [[l, w, 1], [0, 0, -1], '--color-kraft-pale'],
      [[l, 1, h], [0, w, 0], '--color-kraft'],
      [[1, w, h], [l, 0, 0], '--color-kraft'],
    ];
    for (const [size, from, name] of walls) {
      const wall = new Mesh(geometryOf(size), new MeshLambertMaterial({ color: color(name) }));
      wall.position.set(...this.at(from[0] + size[0] / 2, from[1] + size[1] / 2, from[2] + size[2] / 2));
      group.add(wall);
    }
    group.add(new LineSegments(new EdgesGeometry(geometryOf(this.inner)), new LineBasicMaterial({ color: color('--color-ink') })));
    return group;
  }

  private unit({ atMm, sizeMm, look }: Placement & { look: Look }): Group {
    const group = new Group();
    const shape = geometryOf(sizeMm.map((side) => Math.max(1, side - GAP_MM)) as unknown as Size);
    const isThere = look !== 'later';
    if (isThere) group.add(new Mesh(shape, new MeshLambertMaterial({ color: color(look === 'next' ? '--color-mark' : '--color-sheet') })));
    group.add(
      new LineSegments(new EdgesGeometry(shape), new LineBasicMaterial({ color: color(isThere ? '--color-ink' : '--color-kraft-deep') })),
    );
    group.position.set(...this.at(atMm[0] + sizeMm[0] / 2, atMm[1] + sizeMm[1] / 2, atMm[2] + sizeMm[2] / 2));
    return group;
  }
}

const geometryOf = ([l, w, h]: Size) => new BoxGeometry(l, h, w);

/** Whether one unit hides the top of another from above. */
function covers(a: Placement, b: Placement): boolean {
  const [x, y] = [b.atMm[0] + b.sizeMm[0] / 2, b.atMm[1] + b.sizeMm[1] / 2];
  return (
    a.atMm[2] >= b.atMm[2] + b.sizeMm[2] && a.atMm[0] < x && x < a.atMm[0] + a.sizeMm[0] && a.atMm[1] < y && y < a.atMm[1] + a.sizeMm[1]
  );
}

/** A colour of the page, which may be written in any way that browsers know. */
function color(name: string): Color {
  const pen = document.createElement('canvas').getContext('2d');
  if (!pen) return new Color(0x808080);
  pen.fillStyle = getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  pen.fillRect(0, 0, 1, 1);
  const [r = 0, g = 0, b = 0] = pen.getImageData(0, 0, 1, 1).data;
  return new Color(`rgb(${r}, ${g}, ${b})`);
}

function dispose(top: Group | Scene): void {
  top.traverse((part) => {
    const own = part as { geometry?: BufferGeometry; material?: { dispose(): void } };
    own.geometry?.dispose();
    own.material?.dispose();
  });
}
