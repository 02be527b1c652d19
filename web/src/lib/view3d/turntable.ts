// A shape on a turntable: lit, its dimension lines standing off it, turned by hand or by itself.
//
// Drawn in millimetres, z upwards, from above one corner. Words are placed by whoever shows them: `places` says where.
import {
  AmbientLight,
  BufferAttribute,
  BufferGeometry,
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
import type { ShapeView } from '../api/client';

export interface Inks {
  board: string;
  ink: string;
  line: string;
}

export interface Place {
  name: string;
  text: string;
  x: number;
  y: number;
}

const CREASE_DEGREES = 25; // a round side's facets show no edge, a box's do
const STAND_OFF = 0.1; // of the largest side, from the middle outwards
const TILT = 0.5;
const MARGIN = 1.24;

export class Turntable {
  readonly #renderer: WebGLRenderer;
  readonly #scene = new Scene();
  readonly #camera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  readonly #body = new Group();
  readonly #board = new MeshLambertMaterial();
  readonly #ink = new LineBasicMaterial();
  readonly #line = new LineBasicMaterial();
  #lines: { name: string; text: string; middle: Vector3 }[] = [];
  #around = 0.7;
  #tilt = TILT;

  /** Throws where the browser draws nothing in three dimensions. */
  constructor(canvas: HTMLCanvasElement) {
    this.#renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.#renderer.setPixelRatio(Math.min(devicePixelRatio, 2));
    const sun = new DirectionalLight(0xffffff, 2.4);
    sun.position.set(-0.6, -1, 1.6);
    this.#camera.up.set(0, 0, 1);
    this.#scene.add(new AmbientLight(0xffffff, 1.1), sun, this.#body);
  }

  paint(inks: Inks): void {
    this.#board.color = new Color(inks.board);
    this.#ink.color = new Color(inks.ink);
    this.#line.color = new Color(inks.line);
  }

  show(shape: ShapeView): void {
    this.#empty();
    const size = Math.max(...shape.sizes_mm) || 1;
    const [l, w, h] = shape.sizes_mm;
    const middle = new Vector3(l / 2, w / 2, h / 2);
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(new Float32Array(shape.vertices_mm), 3));
    geometry.setIndex(shape.faces);
    geometry.computeVertexNormals();
    const flat = geometry.toNonIndexed();
    flat.computeVertexNormals();
    this.#body.add(new Mesh(flat, this.#board));
    this.#body.add(new LineSegments(new EdgesGeometry(geometry, CREASE_DEGREES), this.#ink));
    geometry.dispose();

    const marks: Vector3[] = [];
    this.#lines = shape.lines.map(({ name, text, start_mm, end_mm }) => {
      const [a, b] = [new Vector3(...start_mm), new Vector3(...end_mm)];
      const between = a.clone().add(b).multiplyScalar(0.5);
      const away = between.clone().sub(middle);
      const along = b.clone().sub(a).normalize();
      away.addScaledVector(along, -away.dot(along));
      if (away.length() < size * 0.01) away.set(0, 0, 1);
      away.setLength(size * STAND_OFF);
      const [from, to] = [a.clone().add(away), b.clone().add(away)];
      marks.push(from, to, a, from, b, to);
      return { name, text, middle: between.add(away) };
    });
    this.#body.add(new LineSegments(new BufferGeometry().setFromPoints(marks), this.#line));

    this.#body.position.copy(middle).multiplyScalar(-1);
    const reach = Math.hypot(...shape.sizes_mm) / 2;
    this.#body.userData.reach = reach;
    this.#scene.scale.setScalar(1 / (reach * MARGIN));
  }

  turn(around: number, tilt: number): void {
    this.#around += around;
    this.#tilt = Math.max(-1.2, Math.min(1.4, this.#tilt + tilt));
  }

  /** Draws it as wide and high as that, and says where the words of its lines belong. */
  draw(width: number, height: number): Place[] {
    const aspect = width / height;
    this.#renderer.setSize(width, height, false);
    const [x, y] = aspect > 1 ? [aspect, 1] : [1, 1 / aspect];
    Object.assign(this.#camera, { left: -x, right: x, top: y, bottom: -y });
    const flat = Math.cos(this.#tilt);
    this.#camera.position.set(
      Math.sin(this.#around) * flat * 5,
      -Math.cos(this.#around) * flat * 5,
      Math.sin(this.#tilt) * 5,
    );
    this.#camera.lookAt(0, 0, 0);
    this.#camera.updateProjectionMatrix();
    this.#scene.updateMatrixWorld(true);
    this.#renderer.render(this.#scene, this.#camera);
    return this.#lines.map(({ name, text, middle }) => {
      const at = this.#body.localToWorld(middle.clone()).project(this.#camera);
      return { name, text, x: ((at.x + 1) / 2) * width, y: ((1 - at.y) / 2) * height };
    });
  }

  #empty(): void {
    for (const child of [...this.#body.children]) {
      if (child instanceof Mesh || child instanceof LineSegments)
        (child.geometry as BufferGeometry).dispose();
      this.#body.remove(child);
    }
  }

  leave(): void {
    this.#empty();
    this.#renderer.dispose();
  }
}
