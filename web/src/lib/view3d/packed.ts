// A packed box: its walls as thick as the board, everything in its own shape where it lies, lit, to be turned.
//
// Drawn in millimetres, z upwards. Things are lifted apart by the order they go in; one may be chosen, shows its gap, and
// is moved by whoever holds it: `under` says which thing is at a point, `along` how far a drag on screen goes in the box.
import {
  Box3,
  BoxGeometry,
  BufferGeometry,
  Color,
  EdgesGeometry,
  Group,
  IcosahedronGeometry,
  InstancedMesh,
  LineBasicMaterial,
  LineDashedMaterial,
  LineSegments,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  Plane,
  Raycaster,
  Vector2,
  Vector3,
  type Object3D,
} from 'three';
import type { FillView, Layout, Placement, ThingShapes } from '../api/client';
import { drawn, Stage, swollen } from './stage';

export interface PackedInks {
  board: string;
  boardDeep: string;
  ink: string;
  thing: string;
  extra: string;
  wrap: string;
  fill: string;
  chosen: string;
  stop: string;
}

export type Side = 'corner' | 'above' | 'front' | 'right';

const MARGIN = 1.07;
const WRAP_SHOWS = 0.3;
const TUFT = 0.52; // of a cell of fill: they just touch
const VIEWS: Record<Side, [number, number]> = {
  corner: [0.62, 0.5],
  above: [0, Math.PI / 2],
  front: [0, 0],
  right: [Math.PI / 2, 0],
};

interface Shown {
  placement: Placement;
  body: Group;
  mesh: Mesh;
  edges: LineSegments;
  wrap: Mesh | null;
}

export class PackedView {
  readonly #stage: Stage;
  readonly #all = new Group();
  readonly #walls = new Group();
  readonly #things = new Group();
  readonly #gap = new Group();
  readonly #fill = new Group();
  #shapes: ThingShapes | null = null;
  #drawn: { faces: BufferGeometry; edges: BufferGeometry }[] = [];
  #wraps: BufferGeometry[] = [];
  #filled: FillView | null = null;
  #wrapped = false;
  #shown: Shown[] = [];
  #layout: Layout | null = null;
  #board = 4;
  #inks: PackedInks | null = null;
  #around = VIEWS.corner[0];
  #tilt = VIEWS.corner[1];
  #reach = 1;
  #corners: Vector3[] = [];
  #step = Infinity;
  #apart = 0;
  #chosen = -1;
  #wrong = new Set<number>();

  /** Throws where the browser draws nothing in three dimensions. */
  constructor(canvas: HTMLCanvasElement) {
    this.#stage = new Stage(canvas);
    this.#all.add(this.#walls, this.#things, this.#fill, this.#gap);
    this.#stage.scene.add(this.#all);
  }

  paint(inks: PackedInks): void {
    this.#inks = inks;
    this.#rebuild();
  }

  /** What the things look like. */
  know(shapes: ThingShapes): void {
    if (shapes === this.#shapes) return;
    this.#forget();
    this.#shapes = shapes;
    this.#drawn = shapes.shapes.map(drawn);
    this.#rebuild();
  }

  /** Whether their wrap is shown round them, and where there is fill, nothing for none. */
  dress(wrapped: boolean, fill: FillView | null): void {
    const other = wrapped !== this.#wrapped;
    this.#wrapped = wrapped;
    this.#filled = fill;
    if (other) this.#rebuild();
    else this.#strew();
  }

  /** Where they lie; `board` is how thick the walls are, mm. */
  lay(layout: Layout, board: number): void {
    this.#layout = layout;
    this.#board = board;
    this.#rebuild();
  }

  /** So many of them, in the order they go in; lifted apart by a share of the box's height. */
  show(step: number, apart: number): void {
    this.#step = step;
    this.#apart = apart;
    this.#place();
  }

  choose(thing: number, wrong: Iterable<number>): void {
    this.#chosen = thing;
    this.#wrong = new Set(wrong);
    this.#colour();
  }

  turn(around: number, tilt: number): void {
    this.#around += around;
    this.#tilt = Math.max(0, Math.min(Math.PI / 2, this.#tilt + tilt));
  }

  look(side: Side): void {
    [this.#around, this.#tilt] = VIEWS[side];
  }

  /** Draws it as wide and high as that. */
  draw(width: number, height: number): void {
    const aspect = width / height;
    const flat = Math.cos(this.#tilt);
    this.#stage.camera.position.set(
      Math.sin(this.#around) * flat * 5,
      -Math.cos(this.#around) * flat * 5,
      Math.sin(this.#tilt) * 5,
    );
    // Straight from above there is no up to look for but that away from the front.
    this.#stage.camera.up.set(0, this.#tilt > 1.55 ? 1 : 0, this.#tilt > 1.55 ? 0 : 1);
    this.#stage.camera.lookAt(0, 0, 0);
    this.#stage.camera.updateMatrixWorld(true);
    this.#stage.scene.updateMatrixWorld(true);
    this.#fit(aspect);
    this.#stage.draw(width, height);
  }

  /** As large as the picture takes, things lifted apart and all. */
  #fit(aspect: number): void {
    const seen = this.#corners.map((corner) =>
      this.#stage.scene.localToWorld(corner.clone()).applyMatrix4(this.#stage.camera.matrixWorldInverse),
    );
    const lifted = new Box3().setFromObject(this.#things);
    const high =
      Math.cos(this.#tilt) * Math.max(0, lifted.max.z - (this.#layout?.inside_mm[2] ?? 0) / 2 / this.#reach);
    const xs = seen.map((point) => point.x);
    const ys = seen.map((point) => point.y);
    const [left, right] = [Math.min(...xs), Math.max(...xs)];
    const [bottom, top] = [Math.min(...ys), Math.max(...ys) + high];
    const half = Math.max((top - bottom) / 2, (right - left) / 2 / aspect) * MARGIN || 1;
    const [x, y] = [(left + right) / 2, (bottom + top) / 2];
    Object.assign(this.#stage.camera, {
      left: x - half * aspect,
      right: x + half * aspect,
      top: y + half,
      bottom: y - half,
    });
    this.#stage.camera.updateProjectionMatrix();
  }

  /** The thing seen at a point of the picture, -1 where there is none; x and y from -1 to 1, y upwards. */
  under(x: number, y: number): number {
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2(x, y), this.#stage.camera);
    const meshes = this.#shown.filter((one) => one.body.visible).map((one) => one.mesh);
    const hit = ray.intersectObjects<Mesh>(meshes, false)[0];
    const found = this.#shown.find((one) => one.mesh === hit?.object);
    return found ? found.placement.thing : -1;
  }

  /** How far a drag from one point to another goes in the box: level, or straight up where `upright`. */
  along(from: [number, number], to: [number, number], upright: boolean): Vector3 {
    const [a, b] = [this.#onPlane(from, upright), this.#onPlane(to, upright)];
    if (!a || !b) return new Vector3();
    const moved = b.sub(a).multiplyScalar(this.#reach);
    return upright ? new Vector3(0, 0, moved.z) : new Vector3(moved.x, moved.y, 0);
  }

  /** A thing shown elsewhere while it is dragged. */
  drag(thing: number, by: Vector3): void {
    const one = this.#shown.find((shown) => shown.placement.thing === thing);
    if (!one) return;
    this.#place();
    one.body.position.add(by);
    this.#gap.position.copy(by);
  }

  #onPlane([x, y]: [number, number], upright: boolean): Vector3 | null {
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2(x, y), this.#stage.camera);
    const normal = upright ? this.#stage.camera.position.clone().setZ(0).normalize() : new Vector3(0, 0, 1);
    return ray.ray.intersectPlane(new Plane(normal, 0), new Vector3());
  }

  #rebuild(): void {
    const layout = this.#layout;
    const inks = this.#inks;
    clear(this.#walls);
    this.#things.clear();
    for (const old of this.#wraps.splice(0)) old.dispose();
    this.#shown = [];
    if (!layout || !inks) return;
    const [l, w, h] = layout.inside_mm;
    this.#reach = (Math.hypot(l, w, h) / 2) * 1.06;
    this.#stage.scene.scale.setScalar(1 / this.#reach);
    const t = this.#board;
    this.#corners = [-t, l + t].flatMap((x) =>
      [-t, w + t].flatMap((y) => [-t, h].map((z) => new Vector3(x - l / 2, y - w / 2, z - h / 2))),
    );
    this.#all.position.set(-l / 2, -w / 2, -h / 2);
    this.#wall(layout.inside_mm, inks);
    for (const placement of [...layout.parts, ...layout.extras]) {
      const look = this.#drawn[this.#shapes?.of[placement.thing] ?? -1];
      if (!look) continue;
      const body = new Group();
      const mesh = new Mesh(look.faces, new MeshLambertMaterial());
      const edges = new LineSegments(look.edges, new LineBasicMaterial());
      const wrap =
        this.#wrapped || this.#shapes?.wraps[placement.thing]?.boxed ? this.#wrapOf(placement) : null;
      body.add(mesh, edges);
      const [a, b, c] = placement.turn;
      const turn = new Matrix4().set(
        a[0], a[1], a[2], 0, b[0], b[1], b[2], 0, c[0], c[1], c[2], 0, 0, 0, 0, 1,
      ); // prettier-ignore
      body.setRotationFromMatrix(turn);
      if (wrap) body.add(wrap);
      this.#things.add(body);
      this.#shown.push({ placement, body, mesh, edges, wrap });
    }
    this.#place();
    this.#colour();
    this.#strew();
  }

  /** What a thing has on, pale around it: a block where it is made one, else following its shape. */
  #wrapOf({ thing }: Placement): Mesh | null {
    const has = this.#shapes?.wraps[thing];
    const shape = this.#shapes?.shapes[this.#shapes.of[thing] ?? -1];
    if (!has || !shape || has.grown_mm.every((by) => by === 0)) return null;
    const [l, w, h] = shape.sizes_mm;
    const [a, b, c] = has.grown_mm;
    const geometry =
      has.held === 'block'
        ? new BoxGeometry(l + 2 * a, w + 2 * b, h + 2 * c).translate(l / 2, w / 2, h / 2)
        : swollen(shape, has.grown_mm);
    this.#wraps.push(geometry);
    const around = new Mesh(
      geometry,
      new MeshLambertMaterial({ transparent: true, opacity: WRAP_SHOWS, depthWrite: false }),
    );
    if (has.boxed) {
      const corners = new EdgesGeometry(geometry);
      this.#wraps.push(corners);
      around.add(
        new LineSegments(corners, new LineBasicMaterial({ color: new Color(this.#inks?.boardDeep) })),
      );
    }
    return around;
  }

  /** Tufts of fill where there is room; they are in once everything is. */
  #strew(): void {
    clear(this.#fill);
    const fill = this.#filled;
    const inks = this.#inks;
    if (!fill || !inks) return;
    const count = fill.points_mm.length / 3;
    const tufts = new InstancedMesh(
      new IcosahedronGeometry(fill.step_mm * TUFT, 0),
      new MeshLambertMaterial({ color: new Color(inks.fill), transparent: true, opacity: 0.42 }),
      count,
    );
    const place = new Matrix4();
    for (let n = 0; n < count; n += 1) {
      const [x, y, z] = fill.points_mm.slice(3 * n, 3 * n + 3) as [number, number, number];
      place.makeRotationY(n * 2.4).setPosition(x, y, z);
      tufts.setMatrixAt(n, place);
    }
    this.#fill.add(tufts);
    this.#place();
  }

  /** The floor and the two far walls stand; the near ones are only their edges. */
  #wall([l, w, h]: readonly [number, number, number], inks: PackedInks): void {
    const t = this.#board;
    const material = new MeshLambertMaterial({ color: new Color(inks.board) });
    const line = new LineBasicMaterial({ color: new Color(inks.boardDeep) });
    const slabs: [[number, number, number], [number, number, number]][] = [
      [[l + 2 * t, w + 2 * t, t], [l / 2, w / 2, -t / 2]],
      [[l + 2 * t, t, h], [l / 2, w + t / 2, h / 2]],
      [[t, w + 2 * t, h], [-t / 2, w / 2, h / 2]],
    ]; // prettier-ignore
    for (const [size, at] of slabs) {
      const geometry = new BoxGeometry(...size);
      const mesh = new Mesh(geometry, material);
      const edges = new LineSegments(new EdgesGeometry(geometry), line);
      for (const part of [mesh, edges]) part.position.set(...at);
      this.#walls.add(mesh, edges);
    }
    const inner = new LineSegments(new EdgesGeometry(new BoxGeometry(l, w, h)), line);
    inner.position.set(l / 2, w / 2, h / 2);
    this.#walls.add(inner);
  }

  #place(): void {
    const high = this.#layout?.inside_mm[2] ?? 0;
    this.#gap.position.set(0, 0, 0);
    for (const { placement, body } of this.#shown) {
      const [x, y, z] = placement.origin_mm;
      body.position.set(x, y, z + this.#apart * high * 0.35 * (placement.goes_in - 1));
      body.visible = placement.goes_in <= this.#step;
    }
    this.#fill.visible = this.#apart === 0 && this.#step >= this.#shown.length;
  }

  #colour(): void {
    const inks = this.#inks;
    if (!inks) return;
    clear(this.#gap);
    for (const { placement, mesh, edges, wrap } of this.#shown) {
      const extra = (this.#layout?.extras ?? []).includes(placement);
      const chosen = placement.thing === this.#chosen;
      const colour = this.#wrong.has(placement.thing)
        ? inks.stop
        : chosen
          ? inks.chosen
          : extra
            ? inks.extra
            : inks.thing;
      (mesh.material as MeshLambertMaterial).color = new Color(colour);
      (edges.material as LineBasicMaterial).color = new Color(inks.ink);
      if (wrap) (wrap.material as MeshLambertMaterial).color = new Color(inks.wrap);
      if (chosen) this.#showGap(placement, inks);
    }
  }

  /** The room a thing keeps around it, as dashes around its wrapped size. */
  #showGap({ at_mm: at, size_mm: size, ...gap }: Placement, inks: PackedInks): void {
    const { gap_before_mm: before, gap_beyond_mm: beyond } = gap;
    const [l, w, h] = size.map((side, k) => side + (before[k] ?? 0) + (beyond[k] ?? 0)) as [
      number,
      number,
      number,
    ];
    const edges = new LineSegments(
      new EdgesGeometry(new BoxGeometry(l, w, h)),
      new LineDashedMaterial({ color: new Color(inks.chosen), dashSize: 14, gapSize: 9 }),
    );
    edges.computeLineDistances();
    edges.position.set(at[0] - before[0] + l / 2, at[1] - before[1] + w / 2, at[2] - before[2] + h / 2);
    const floor = new Mesh(
      new BoxGeometry(l, w, 1),
      new MeshBasicMaterial({ color: new Color(inks.chosen), transparent: true, opacity: 0.16 }),
    );
    floor.position.set(edges.position.x, edges.position.y, 0.5);
    this.#gap.add(edges, floor);
  }

  /** How many things are to be seen now, for whoever checks that there is a picture. */
  get count(): number {
    return this.#shown.filter((one) => one.body.visible).length;
  }

  get bounds(): Box3 {
    return new Box3().setFromObject(this.#things);
  }

  #forget(): void {
    for (const { faces, edges } of this.#drawn.splice(0)) {
      faces.dispose();
      edges.dispose();
    }
    for (const old of this.#wraps.splice(0)) old.dispose();
  }

  leave(): void {
    for (const group of [this.#walls, this.#gap, this.#fill]) clear(group);
    this.#forget();
    this.#stage.leave();
  }
}

function clear(group: Group): void {
  for (const child of [...group.children] as (Object3D & { geometry?: BufferGeometry })[]) {
    child.geometry?.dispose();
    group.remove(child);
  }
}
