// A shape on a turntable: lit, its dimension lines standing off it, turned by hand or by itself.
//
// Drawn in millimetres, z upwards, from above one corner. Words are placed by whoever shows them: `places` says where.
import {
  BufferGeometry,
  Color,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  Vector3,
} from 'three';
import type { ShapeView } from '../api/client';
import { drawn, Stage } from './stage';

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

const STAND_OFF = 0.1; // of the largest side, from the middle outwards
const TILT = 0.5;
const MARGIN = 1.24;

export class Turntable {
  readonly #stage: Stage;
  readonly #body = new Group();
  readonly #board = new MeshLambertMaterial();
  readonly #ink = new LineBasicMaterial();
  readonly #line = new LineBasicMaterial();
  #lines: { name: string; text: string; middle: Vector3 }[] = [];
  #around = 0.7;
  #tilt = TILT;

  /** Throws where the browser draws nothing in three dimensions. */
  constructor(canvas: HTMLCanvasElement) {
    this.#stage = new Stage(canvas);
    this.#stage.scene.add(this.#body);
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
    const { faces, edges } = drawn(shape);
    this.#body.add(new Mesh(faces, this.#board), new LineSegments(edges, this.#ink));

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
    this.#stage.scene.scale.setScalar(1 / (reach * MARGIN));
  }

  turn(around: number, tilt: number): void {
    this.#around += around;
    this.#tilt = Math.max(-1.2, Math.min(1.4, this.#tilt + tilt));
  }

  /** Draws it as wide and high as that, and says where the words of its lines belong. */
  draw(width: number, height: number): Place[] {
    this.#stage.look(width / height, this.#around, this.#tilt);
    this.#stage.scene.updateMatrixWorld(true);
    this.#stage.draw(width, height);
    return this.#lines.map(({ name, text, middle }) => {
      const at = this.#body.localToWorld(middle.clone()).project(this.#stage.camera);
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
    this.#stage.leave();
  }
}
