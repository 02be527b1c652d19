// A packed box: its walls as thick as the board, everything in its own shape where it lies, lit, to be turned.
//
// Drawn in millimetres, z upwards. Things are lifted apart by the order they go in; one may be chosen, shows its gap, and
// is moved by whoever holds it: `under` says which thing is at a point, `along` how far a drag on screen goes in the box.
import {
  AmbientLight,
  Box3,
  BoxGeometry,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineDashedMaterial,
  LineSegments,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  OrthographicCamera,
  Plane,
  Raycaster,
  Scene,
  Vector2,
  Vector3,
  WebGLRenderer,
  type Object3D,
} from 'three';
import type { Layout, Placement, ThingShapes } from '../api/client';

export interface PackedInks {
  board: string;
  boardDeep: string;
  ink: string;
  thing: string;
  extra: string;
  chosen: string;
  stop: string;
}

export type Side = 'corner' | 'above' | 'front' | 'right';

const CREASE_DEGREES = 25;
const MARGIN = 1.07;
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
}

export class PackedView {
  readonly #renderer: WebGLRenderer;
  readonly #scene = new Scene();
  readonly #camera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  readonly #all = new Group();
  readonly #walls = new Group();
  readonly #things = new Group();
  readonly #gap = new Group();
  #geometries: BufferGeometry[] = [];
  #edges: BufferGeometry[] = [];
  #of: number[] = [];
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
    this.#renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.#renderer.setPixelRatio(Math.min(devicePixelRatio, 2));
    const sun = new DirectionalLight(0xffffff, 2.2);
    sun.position.set(-0.5, -1, 1.7);
    this.#camera.up.set(0, 0, 1);
    this.#all.add(this.#walls, this.#things, this.#gap);
    this.#scene.add(new AmbientLight(0xffffff, 1.25), sun, this.#all);
  }

  paint(inks: PackedInks): void {
    this.#inks = inks;
    this.#rebuild();
  }

  /** What the things look like. */
  know(shapes: ThingShapes): void {
    for (const old of [...this.#geometries, ...this.#edges]) old.dispose();
    this.#geometries = [];
    this.#edges = [];
    for (const shape of shapes.shapes) {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(new Float32Array(shape.vertices_mm), 3));
      geometry.setIndex(shape.faces);
      this.#edges.push(new EdgesGeometry(geometry, CREASE_DEGREES));
      const flat = geometry.toNonIndexed();
      flat.computeVertexNormals();
      geometry.dispose();
      this.#geometries.push(flat);
    }
    this.#of = shapes.of;
    this.#rebuild();
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
    this.#renderer.setSize(width, height, false);
    const flat = Math.cos(this.#tilt);
    this.#camera.position.set(
      Math.sin(this.#around) * flat * 5,
      -Math.cos(this.#around) * flat * 5,
      Math.sin(this.#tilt) * 5,
    );
    // Straight from above there is no up to look for but that away from the front.
    this.#camera.up.set(0, this.#tilt > 1.55 ? 1 : 0, this.#tilt > 1.55 ? 0 : 1);
    this.#camera.lookAt(0, 0, 0);
    this.#camera.updateMatrixWorld(true);
    this.#scene.updateMatrixWorld(true);
    this.#fit(aspect);
    this.#renderer.render(this.#scene, this.#camera);
  }

  /** As large as the picture takes, things lifted apart and all. */
  #fit(aspect: number): void {
    const seen = this.#corners.map((corner) =>
      this.#scene.localToWorld(corner.clone()).applyMatrix4(this.#camera.matrixWorldInverse),
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
    Object.assign(this.#camera, {
      left: x - half * aspect,
      right: x + half * aspect,
      top: y + half,
      bottom: y - half,
    });
    this.#camera.updateProjectionMatrix();
  }

  /** The thing seen at a point of the picture, -1 where there is none; x and y from -1 to 1, y upwards. */
  under(x: number, y: number): number {
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2(x, y), this.#camera);
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
    ray.setFromCamera(new Vector2(x, y), this.#camera);
    const normal = upright ? this.#camera.position.clone().setZ(0).normalize() : new Vector3(0, 0, 1);
    return ray.ray.intersectPlane(new Plane(normal, 0), new Vector3());
  }

  #rebuild(): void {
    const layout = this.#layout;
    const inks = this.#inks;
    clear(this.#walls);
    this.#things.clear();
    this.#shown = [];
    if (!layout || !inks) return;
    const [l, w, h] = layout.inside_mm;
    this.#reach = (Math.hypot(l, w, h) / 2) * 1.06;
    this.#scene.scale.setScalar(1 / this.#reach);
    const t = this.#board;
    this.#corners = [-t, l + t].flatMap((x) =>
      [-t, w + t].flatMap((y) => [-t, h].map((z) => new Vector3(x - l / 2, y - w / 2, z - h / 2))),
    );
    this.#all.position.set(-l / 2, -w / 2, -h / 2);
    this.#wall(layout.inside_mm, inks);
    for (const placement of [...layout.parts, ...layout.extras]) {
      const which = this.#of[placement.thing];
      const geometry = which === undefined ? undefined : this.#geometries[which];
      const edge = which === undefined ? undefined : this.#edges[which];
      if (!geometry || !edge) continue;
      const body = new Group();
      const mesh = new Mesh(geometry, new MeshLambertMaterial());
      const edges = new LineSegments(edge, new LineBasicMaterial());
      body.add(mesh, edges);
      const [a, b, c] = placement.turn;
      const turn = new Matrix4().set(
        a[0], a[1], a[2], 0, b[0], b[1], b[2], 0, c[0], c[1], c[2], 0, 0, 0, 0, 1,
      ); // prettier-ignore
      body.setRotationFromMatrix(turn);
      this.#things.add(body);
      this.#shown.push({ placement, body, mesh, edges });
    }
    this.#place();
    this.#colour();
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
  }

  #colour(): void {
    const inks = this.#inks;
    if (!inks) return;
    clear(this.#gap);
    for (const { placement, mesh, edges } of this.#shown) {
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
      if (chosen) this.#showGap(placement, inks);
    }
  }

  /** The room a thing keeps around it, as dashes around its wrapped size. */
  #showGap({ at_mm: at, size_mm: size, gap_mm: gap }: Placement, inks: PackedInks): void {
    const [l, w, h] = size.map((side) => side + 2 * gap) as [number, number, number];
    const edges = new LineSegments(
      new EdgesGeometry(new BoxGeometry(l, w, h)),
      new LineDashedMaterial({ color: new Color(inks.chosen), dashSize: 14, gapSize: 9 }),
    );
    edges.computeLineDistances();
    edges.position.set(at[0] - gap + l / 2, at[1] - gap + w / 2, at[2] - gap + h / 2);
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

  leave(): void {
    clear(this.#walls);
    clear(this.#gap);
    for (const old of [...this.#geometries, ...this.#edges]) old.dispose();
    this.#renderer.dispose();
  }
}

function clear(group: Group): void {
  for (const child of [...group.children] as (Object3D & { geometry?: BufferGeometry })[]) {
    child.geometry?.dispose();
    group.remove(child);
  }
}
