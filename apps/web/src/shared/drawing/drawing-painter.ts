import {
  type Box,
  detailAt,
  type DrawingScene,
  findHolding,
  findShown,
  groundOf,
  paintRoute,
  paintShape,
  type Paper,
  routeStrength,
  type Coat,
} from '@coomb/core';
import { CanvasPen } from './canvas-pen';

/** What part of a drawing is shown: the point at the left top, and how many pixels its unit takes. */
export interface ViewPort {
  x: number;
  y: number;
  scale: number;
}

export const LEAST_SCALE = 0.02;
export const MOST_SCALE = 4;

interface Buffer {
  canvas: OffscreenCanvas;
  view: ViewPort;
  /** Pixels of the buffer for a pixel of the screen. */
  density: number;
}

export interface Look {
  paper: Paper;
  /** What a colour key says of shapes and routes, by their places. */
  coatOf?: ((index: number) => Coat | undefined) | undefined;
  coatOfRoute?: ((index: number) => Coat | undefined) | undefined;
  /** How strongly each shape is painted, from 0 to 1: in full where nothing is said. */
  strengths?: ArrayLike<number> | undefined;
}

/** Buffers are larger than what is shown, so that it can be moved without painting. */
const LARGER = 1.8;
/** Time for painting within a frame, in milliseconds. */
const SLICE_MS = 6;
/** The same while nothing is shown yet, and nothing can be moved. */
const FIRST_SLICE_MS = 60;
/** Rest after which a blurred picture is painted sharp. */
const REST_MS = 120;
const THUMB = 1400;
/** How far a picture is shrunk and stretched before it is painted anew. */
const SHRUNK = 0.7;
const STRETCHED = 1.5;
/** Sizes between one and twice that are painted while zooming: letters that were once shaped at a size serve again. */
const SIZES = 3;
/** Figures painted at a time. */
const AT_A_TIME = 20;

/**
 * Shows a drawing through two buffers: the front one is moved and scaled within each frame, the back one is painted a few milliseconds at a
 * time and takes its place when it is done. A thumbnail of the whole lies below, so that nothing is ever blank.
 */
export class DrawingPainter {
  private front: Buffer | undefined;
  private work: { buffer: Buffer; steps: Generator<void> } | undefined;
  private thumb: { canvas: OffscreenCanvas; scale: number } | undefined;
  private thumbWork: Generator<void> | undefined;
  private scene: DrawingScene | undefined;
  private look: Look | undefined;
  /** The canvas that is shown no more, for the next picture: making one of this size takes as long as a frame. */
  private spare: OffscreenCanvas | undefined;
  private holding = new Set<number>();
  private width = 0;
  private height = 0;
  private moved = 0;
  private request = 0;
  private rest: ReturnType<typeof setTimeout> | undefined;
  view: ViewPort = { x: 0, y: 0, scale: 1 };

  /** `overlay` draws what changes with the hand on top, in pixels of the screen; `shown` hears of each view that came to rest and has been painted sharp. */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly overlay: (context: CanvasRenderingContext2D, view: ViewPort) => void,
    private readonly shown: (view: ViewPort) => void,
    private readonly map?: HTMLCanvasElement,
  ) {}

  setScene(scene: DrawingScene, look: Look): void {
    this.scene = scene;
    this.look = look;
    this.holding = findHolding(scene.shapes);
    this.front = undefined;
    this.work = undefined;
    this.thumb = undefined;
    this.thumbWork = this.paintThumb();
    this.ask();
  }

  setSize(width: number, height: number): void {
    if (width === this.width && height === this.height) return;
    this.width = width;
    this.height = height;
    this.front = undefined;
    this.work = undefined;
    this.ask();
  }

  setView(view: ViewPort): void {
    this.view = view;
    this.moved = performance.now();
    this.ask();
  }

  /** Draws what lies on top anew. */
  refresh(): void {
    this.ask();
  }

  close(): void {
    cancelAnimationFrame(this.request);
    clearTimeout(this.rest);
    this.scene = undefined;
  }

  private ask(): void {
    if (this.request === 0)
      this.request = requestAnimationFrame(() => {
        this.request = 0;
        this.frame();
      });
  }

  private frame(): void {
    const { scene, width, height, canvas } = this;
    if (!scene || width === 0 || height === 0) return;
    const until = performance.now() + (this.thumb || this.front ? SLICE_MS : FIRST_SLICE_MS);
    this.paint(until);
    const density = window.devicePixelRatio || 1;
    const [wide, tall] = [Math.round(width * density), Math.round(height * density)];
    if (canvas.width !== wide || canvas.height !== tall) Object.assign(canvas, { width: wide, height: tall });
    const context = canvas.getContext('2d')!;
    context.setTransform(density, 0, 0, density, 0, 0);
    context.fillStyle = this.look!.paper.ground;
    context.fillRect(0, 0, width, height);
    if (this.thumb && !this.covers(this.front)) this.blit(context, this.thumb.canvas, { x: scene.bounds.x, y: scene.bounds.y, scale: this.thumb.scale });
    if (this.front) this.blit(context, this.front.canvas, { ...this.front.view, scale: this.front.view.scale * this.front.density });
    this.overlay(context, this.view);
    this.drawMap();
    const isResting = performance.now() - this.moved > REST_MS;
    if (this.work || this.thumbWork) this.ask();
    else if (isResting && this.isSharp()) this.shown(this.view);
    else {
      // Who hears of a view writes its words: not for each frame of a movement.
      clearTimeout(this.rest);
      this.rest = setTimeout(() => this.ask(), isResting ? 0 : REST_MS + 10);
    }
  }

  private blit(context: CanvasRenderingContext2D, from: OffscreenCanvas, at: ViewPort): void {
    const { view } = this;
    const scale = view.scale / at.scale;
    context.drawImage(from, (at.x - view.x) * view.scale, (at.y - view.y) * view.scale, from.width * scale, from.height * scale);
  }

  private covers(buffer: Buffer | undefined): boolean {
    if (!buffer) return false;
    const { view, width, height } = this;
    const [wide, tall] = [buffer.canvas.width / buffer.density / buffer.view.scale, buffer.canvas.height / buffer.density / buffer.view.scale];
    return (
      view.x >= buffer.view.x &&
      view.y >= buffer.view.y &&
      view.x + width / view.scale <= buffer.view.x + wide &&
      view.y + height / view.scale <= buffer.view.y + tall
    );
  }

  private isSharp(): boolean {
    return this.covers(this.front) && this.front!.view.scale === this.view.scale && this.front!.density >= Math.min(2, window.devicePixelRatio || 1);
  }

  /** Goes on with what is being painted; begins anew where that no longer serves. */
  private paint(until: number): void {
    if (this.thumbWork) {
      while (performance.now() < until) if (this.thumbWork.next().done) return void (this.thumbWork = undefined);
      if (this.front === undefined) return;
    }
    const isResting = performance.now() - this.moved > REST_MS;
    const aged = this.front ? this.view.scale / this.front.view.scale : 0;
    const isNeeded = !this.covers(this.front) || aged < SHRUNK || aged > STRETCHED || (isResting && !this.isSharp());
    const serves = (buffer: Buffer) => {
      const ratio = this.view.scale / buffer.view.scale;
      return this.covers(buffer) && ratio > SHRUNK && ratio < STRETCHED;
    };
    if (this.work && !serves(this.work.buffer)) {
      this.spare = this.work.buffer.canvas;
      this.work = undefined;
    }
    if (!this.work && isNeeded) this.work = this.begin(isResting);
    while (this.work && performance.now() < until)
      if (this.work.steps.next().done) {
        this.spare = this.front?.canvas;
        this.front = this.work.buffer;
        this.work = undefined;
      }
  }

  private begin(isResting: boolean): { buffer: Buffer; steps: Generator<void> } {
    const { view, width, height } = this;
    const density = isResting ? Math.min(2, window.devicePixelRatio || 1) : 1;
    const [wide, tall] = [width * LARGER, height * LARGER];
    const [across, down] = [Math.ceil(wide * density), Math.ceil(tall * density)];
    const canvas = this.spare?.width === across && this.spare.height === down ? this.spare : new OffscreenCanvas(across, down);
    this.spare = undefined;
    const scale = isResting ? view.scale : 2 ** (Math.round(Math.log2(view.scale) * SIZES) / SIZES);
    const at = { x: view.x + (width / view.scale - wide / scale) / 2, y: view.y + (height / view.scale - tall / scale) / 2, scale };
    const buffer = { canvas, view: at, density };
    return { buffer, steps: this.paintPart(canvas, at, density) };
  }

  private *paintPart(canvas: OffscreenCanvas, view: ViewPort, density: number): Generator<void> {
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.fillStyle = this.look!.paper.ground;
    context.fillRect(0, 0, canvas.width, canvas.height);
    const scale = view.scale * density;
    context.setTransform(scale, 0, 0, scale, -view.x * scale, -view.y * scale);
    const part: Box = { x: view.x, y: view.y, width: canvas.width / scale, height: canvas.height / scale };
    // Names beside small figures reach out of them.
    const margin = 160;
    const around = { x: part.x - margin, y: part.y - 40, width: part.width + 2 * margin, height: part.height + 80 };
    for (const _ of this.paintBox(new CanvasPen(context), around, view.scale)) {
      // A canvas only notes what is painted, and does it all when the picture is asked for: a point that is asked for spreads the work over frames.
      context.getImageData(0, 0, 1, 1);
      yield;
    }
    context.getImageData(0, 0, 1, 1);
    yield;
  }

  private *paintThumb(): Generator<void> {
    const { bounds } = this.scene!;
    const scale = Math.min(1, THUMB / bounds.width, THUMB / bounds.height);
    const canvas = new OffscreenCanvas(Math.max(1, Math.ceil(bounds.width * scale)), Math.max(1, Math.ceil(bounds.height * scale)));
    const context = canvas.getContext('2d')!;
    context.fillStyle = this.look!.paper.ground;
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.setTransform(scale, 0, 0, scale, -bounds.x * scale, -bounds.y * scale);
    yield* this.paintBox(new CanvasPen(context), bounds, scale);
    this.thumb = { canvas, scale };
  }

  /** Holding shapes, then routes, then the rest. */
  private *paintBox(pen: CanvasPen, part: Box, scale: number): Generator<void> {
    const scene = this.scene!;
    const { paper, coatOf, coatOfRoute, strengths } = this.look!;
    const strengthOf = (index: number) => strengths?.[index] ?? 1;
    const detail = detailAt(scale);
    const { shapes, routes } = findShown(scene, part);
    const holderOf = (index: number) => scene.shapes[scene.shapes[index]!.inside];
    let count = 0;
    for (const index of shapes)
      if (this.holding.has(index) && strengthOf(index) > 0) {
        pen.strength(strengthOf(index));
        paintShape(pen, paper, scene.shapes[index]!, detail, true, coatOf?.(index), holderOf(index));
        if (++count % AT_A_TIME === 0) yield;
      }
    for (const index of routes) {
      const strength = strengths ? routeStrength(scene.routes[index]!, strengths) : 1;
      if (strength === 0) continue;
      pen.strength(strength);
      paintRoute(pen, paper, scene.routes[index]!, detail, groundOf(scene.shapes, paper, scene.routes[index]!), coatOfRoute?.(index));
      if (++count % AT_A_TIME === 0) yield;
    }
    for (const index of shapes)
      if (!this.holding.has(index) && strengthOf(index) > 0) {
        pen.strength(strengthOf(index));
        paintShape(pen, paper, scene.shapes[index]!, detail, false, coatOf?.(index), holderOf(index));
        if (++count % AT_A_TIME === 0) yield;
      }
  }

  private drawMap(): void {
    const { map, thumb, scene, view, width, height } = this;
    if (!map || !thumb || !scene) return;
    const { bounds } = scene;
    // Where all is in sight, a map of it only stands in the way.
    const isWhole =
      view.x <= bounds.x + 24 &&
      view.y <= bounds.y + 24 &&
      view.x + width / view.scale >= bounds.x + bounds.width - 24 &&
      view.y + height / view.scale >= bounds.y + bounds.height - 24;
    map.parentElement!.style.visibility = isWhole ? 'hidden' : 'visible';
    const context = map.getContext('2d')!;
    const scale = Math.min(map.width / bounds.width, map.height / bounds.height);
    const [wide, tall] = [bounds.width * scale, bounds.height * scale];
    const [left, top] = [(map.width - wide) / 2, (map.height - tall) / 2];
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, map.width, map.height);
    context.drawImage(thumb.canvas, left, top, wide, tall);
    context.strokeStyle = this.look!.paper.ink;
    context.lineWidth = 2;
    context.strokeRect(left + (view.x - bounds.x) * scale, top + (view.y - bounds.y) * scale, (width / view.scale) * scale, (height / view.scale) * scale);
  }
}

/** The view that shows a box whole, not larger than it is drawn. */
export function fitView({ x, y, width, height }: Box, wide: number, tall: number, most = 1.15): ViewPort {
  const scale = Math.max(LEAST_SCALE, Math.min(most, wide / width, tall / height));
  return { x: x + width / 2 - wide / 2 / scale, y: y + height / 2 - tall / 2 / scale, scale };
}

/** The view scaled around a point of the screen. */
export function zoomView(view: ViewPort, factor: number, x: number, y: number): ViewPort {
  const scale = Math.max(LEAST_SCALE, Math.min(MOST_SCALE, view.scale * factor));
  return { x: view.x + x / view.scale - x / scale, y: view.y + y / view.scale - y / scale, scale };
}
