import { sportData, type Sport } from '../sport';
import { CM_PER_POINT, balanceFromPoints } from '../units';
import { DressLine } from './dress-line';
import type { ParsedLine } from './token-line';
import { tokensOf, type Token } from './tokens';
import { DIMENSION, PARTS, TENSION_UNITS, UNITS, type Dimension, type Means } from './words';

interface Candidate {
  means: Means;
  /** In the first unit of what it means. */
  value: number;
  /** How far it may be rounded. */
  half: number;
  /** A label or a unit of its own says what it is. */
  bound: boolean;
  tokens: Token[];
}

class Line extends DressLine {
  private readonly candidates: Candidate[] = [];
  private readonly points: { points: number; half: number; tokens: Token[] }[] = [];

  /** 327/31.3/320 or 327 31.3 320: weight, balance and swing weight, as the trade writes them. In millimetres the balance is one too. */
  readTriple(): void {
    for (let i = 0; i + 2 < this.tokens.length; i++) {
      for (const step of [2, 1]) {
        const three = [this.number(i), this.number(i + step), this.number(i + 2 * step)];
        if (three.some((t) => !t || t.used)) continue;
        const found = this.tripleOf(three as Token[], i, step);
        if (!found) continue;
        this.use(this.tokens.slice(i, i + 2 * step + 1));
        for (const { means, value, half, token } of found) this.offer(means, value, half, true, [token]);
      }
    }
  }

  /** Three numbers that stand alone, where only one place among them can be the balance's; undefined where anything else could be meant. */
  private tripleOf(three: readonly Token[], from: number, step: number) {
    const to = from + 2 * step;
    const parted = step === 1 || (this.is(from + 1, '/') && this.is(from + 3, '/'));
    const alone =
      !this.is(from - 1, '/', '@', '+', '-', 'x') &&
      !this.is(to + 1, '/', '+', '-', 'x', '%') &&
      !this.number(from - 1) &&
      !this.number(to + 1) &&
      !this.unitAt(to + 1) &&
      !this.labelBefore(from) &&
      !this.labelAt(to + 1, true);
    if (!parted || !alone || three.some(({ fraction }) => fraction)) return undefined;
    const [mass, balance, swing] = three as [Token, Token, Token];
    const scaleOf = ({ value }: Token): number | undefined =>
      [1, 0.1].find((scale) => this.plausible('balanceCm', value * scale));
    const scale = scaleOf(balance);
    const usual = this.plausible('massG', mass.value) && this.plausible('swingWeight', swing.value);
    const outer = (a: Token, b: Token): boolean =>
      [
        [a, b],
        [b, a],
      ].some(
        ([m, s]) => m && s && this.plausible('massG', m.value) && this.plausible('swingWeight', s.value),
      );
    // Another of the three could be the balance, and the rest still a weight and a swing weight.
    const other =
      (scaleOf(mass) !== undefined && outer(balance, swing)) ||
      (scaleOf(swing) !== undefined && outer(mass, balance));
    if (scale === undefined || !usual || other) return undefined;
    const is = (means: Means, token: Token, by = 1) => ({
      means,
      value: token.value * by,
      half: token.half * by,
      token,
    });
    return [is('massG', mass), is('balanceCm', balance, scale), is('swingWeight', swing)];
  }

  /** 16 x 19, 18/20: mains and crosses of a sport that has strings. */
  readPattern(): void {
    if (!this.isStrung()) return;
    for (let i = 0; i + 2 < this.tokens.length; i++) {
      const [a, b] = [this.number(i), this.number(i + 2)];
      if (!a || !b || a.used || !this.is(i + 1, 'x', '/') || this.is(i - 1, '/') || this.is(i + 3, '/'))
        continue;
      const whole = [a, b].every(({ value, text }) => /^\d\d$/.test(text) && value >= 10 && value <= 26);
      if (!whole || this.unitAt(i + 3) || this.result.shape.pattern !== undefined) continue;
      this.result.shape.pattern = `${a.text}×${b.text}`;
      this.use(this.tokens.slice(i, i + 3));
    }
  }

  readNames(): void {
    const names = Object.keys(this.sport.shapes);
    this.tokens.forEach((token, i) => {
      if (token.kind !== 'word' || !names.includes(token.is) || this.result.shape.shape !== undefined) return;
      // «5 cm wide» is a measure, not the name of a shape.
      if (this.unitAt(i - 1) && this.tokens[i - 2]?.kind === 'number' && token.is === 'wide') return;
      this.result.shape.shape = token.is;
      token.used = true;
    });
  }

  /** 6 HL, HL 3, −6 pts HL, 1/8 in HL, even. Which way it is must be said: points alone are left over. */
  readPoints(): void {
    this.tokens.forEach((token, i) => {
      if (token.kind !== 'word' || token.used) return;
      if (token.is === 'even' || token.is === 'balanced') {
        const label = this.is(i + 1, 'balance')
          ? [this.tokens[i + 1]]
          : this.is(i - 1, 'balance')
            ? [this.tokens[i - 1]]
            : [];
        this.takeEven([token, ...label]);
        return;
      }
      if (token.is !== 'hl' && token.is !== 'hh') return;
      const way = token.is === 'hl' ? 1 : -1;
      let at = i - 1;
      const unit = this.is(at, 'pt', 'pts', 'point', 'points');
      if (unit) at--;
      const length = unit ? undefined : this.unitAt(at);
      if (length?.[0] === 'length') at--;
      let number = this.number(at);
      let used = this.tokens.slice(at, i + 1);
      if (!number || number.used) {
        // HL 3
        const pts = this.is(i + 2, 'pt', 'pts', 'point', 'points') ? 1 : 0;
        number = this.number(i + 1);
        if (!number || number.used || this.unitAt(i + 2) || this.labelAt(i + 2, true)) return;
        at = i + 1;
        used = this.tokens.slice(i, i + 2 + pts);
      }
      if (this.inRow(at) || this.is(at - 1, '<', '>', '±') || (number.fraction && !length)) return;
      const signed = this.is(at - 1, '+', '-') && this.glued(at - 1);
      // A minus before head-heavy says two things at once.
      if (signed && this.is(at - 1, '-') && way < 0) return;
      if (signed) used = [this.tokens[at - 1] as Token, ...used];
      if (length) {
        const cm = number.value * length[1];
        // A balance that is head-light anyway, or the way from the middle.
        if (this.plausible('balanceCm', cm)) {
          this.offer('balanceCm', cm, number.half * length[1], true, used);
        } else this.takePoints((way * cm) / CM_PER_POINT, (number.half * length[1]) / CM_PER_POINT, used);
        return;
      }
      const label = this.labelBefore(signed ? at - 1 : at);
      if (label?.means === 'balanceCm') used = [...this.tokens.slice(label.from, at), ...used];
      this.takePoints(way * number.value, number.half, used);
    });
  }

  /** What the sport itself calls even; where it has no such band, the middle of a racket, and of a paddle nothing. */
  private takeEven(tokens: (Token | undefined)[]): void {
    const band = this.sport.bands.balanceCm?.find(({ name }) => name === 'even');
    if (band?.from !== undefined && band.to !== undefined) {
      const own = tokens.filter((t): t is Token => t !== undefined);
      this.offer('balanceCm', (band.from + band.to) / 2, (band.to - band.from) / 2, true, own);
      this.use(own);
    } else if (this.isStrung()) this.takePoints(0, 0, tokens);
  }
  /** Whether it is a sport of rackets, with strings in them. */
  private isStrung(): boolean {
    return this.sport.dress.components.includes('strings');
  }

  private takePoints(points: number, half: number, tokens: (Token | undefined)[]): void {
    this.points.push({ points, half, tokens: tokens.filter((t): t is Token => t !== undefined) });
    // Spoken for, whether or not it is kept in the end.
    this.use(tokens);
  }

  private leaveOut(which: (candidate: Candidate) => boolean): void {
    for (let i = this.candidates.length - 1; i >= 0; i--)
      if (which(this.candidates[i] as Candidate)) this.candidates.splice(i, 1);
  }
  private offer(means: Means, value: number, half: number, bound: boolean, tokens: Token[]): void {
    this.candidates.push({ means, value, half, bound, tokens });
  }

  /** Everything that a number with its unit and its label can be. */
  readNumbers(): void {
    this.tokens.forEach((number, i) => {
      if (number.kind !== 'number' || number.used) return;
      // «325 ± 2 g»: the unit is said once for both.
      const shared = this.is(i + 1, '±') && this.number(i + 2) ? this.unitAt(i + 3) : undefined;
      const unit = this.unitAt(i + 1) ?? shared;
      const behind = i + (unit && !shared ? 2 : 1);
      const at = this.axisAt(i, unit);
      if (at) {
        this.offer('axisCm', at.value, at.half, true, at.tokens);
        return;
      }
      const before = this.labelBefore(i);
      const after = !before && this.bindsBack(i) ? this.labelAt(behind, true) : undefined;
      if (after) this.taken.add(this.tokens[behind] as Token);
      const means = before?.means ?? after;
      const tokens = [
        ...this.tokens.slice(this.aboutFrom(before?.from ?? i), i),
        number,
        ...(unit && !shared ? [this.tokens[i + 1] as Token] : []),
        ...(after ? [this.tokens[behind] as Token] : []),
      ];
      if (this.vetoed(i, before?.from ?? i, behind, means !== undefined)) return;
      if (means) this.labelled(number, means, unit, tokens);
      else if (unit) this.measured(number, unit, tokens);
    });
  }

  /** «@ 10 cm»: the axis about which a swing weight is said. */
  private axisAt(i: number, unit: readonly [Dimension, number] | undefined) {
    const number = this.number(i);
    if (!number || unit?.[0] !== 'length' || !this.is(i - 1, '@')) return undefined;
    const value = number.value * unit[1];
    const tokens = this.tokens.slice(i - 1, i + 2);
    return this.believable('axisCm', value) ? { value, half: number.half * unit[1], tokens } : undefined;
  }

  /** A label binds: it is that, in the unit said or in the only unit in which it can be. */
  private labelled(
    number: Token,
    means: Means,
    unit: readonly [Dimension, number] | undefined,
    tokens: Token[],
  ): void {
    if (unit) {
      if (unit[0] !== DIMENSION[means]) return;
      const value = number.value * unit[1];
      if (this.believable(means, value)) this.offer(means, value, number.half * unit[1], true, tokens);
      return;
    }
    const scales = Object.values(UNITS).filter(([dimension]) => dimension === DIMENSION[means]);
    const fits = [...new Set(scales.map(([, scale]) => scale))].filter((scale) =>
      this.plausible(means, number.value * scale),
    );
    const [only, ...others] = fits;
    const first = fits.includes(1) ? 1 : others.length === 0 ? only : undefined;
    const scale =
      first ?? (DIMENSION[means] === 'inertia' && this.believable(means, number.value) ? 1 : undefined);
    if (scale !== undefined) this.offer(means, number.value * scale, number.half * scale, true, tokens);
  }

  /** Without a label it is what it can be, where it can be only one thing. */
  private measured(number: Token, unit: readonly [Dimension, number], tokens: Token[]): void {
    const value = number.value * unit[1];
    const half = number.half * unit[1];
    const means = (Object.keys(DIMENSION) as Means[]).filter(
      (key) => DIMENSION[key] === unit[0] && this.plausible(key, value),
    );
    const tension = TENSION_UNITS.some((u) => UNITS[u] === unit);
    const [only] = means;
    if (means.length === 1 && only) this.offer(only, value, half, false, tokens);
    // A weight that cannot be a frame's stands against the one that can: one of them is of something else.
    else if (unit[0] === 'mass' && !tension && !this.ofDress(tokens))
      this.offer('massG', value, half, false, []);
  }

  /** Of several values of one thing the finest is taken where they agree as far as they are rounded; else none. */
  settle(): void {
    const { specs, shape } = this.result;
    const agree = (all: readonly Candidate[]): Candidate | undefined => {
      const [finest] = all.toSorted((a, b) => a.half - b.half);
      const same = all.every(
        (c) => finest && Math.abs(c.value - finest.value) <= c.half + finest.half + 1e-9,
      );
      return same ? finest : undefined;
    };
    const pick = (means: Means): Candidate | undefined => {
      const all = this.candidates.filter((c) => c.means === means);
      const bound = all.filter((c) => c.bound);
      const found = agree(bound.length > 0 ? bound : all);
      if (!found || found.tokens.length === 0) return undefined;
      for (const c of bound.length > 0 ? bound : all) this.use(c.tokens);
      return found;
    };
    for (const key of ['lengthCm', 'headAreaCm2'] as const) {
      const found = pick(key);
      if (found) shape[key] = found.value;
    }
    // Beside the length of a paddle a smaller one is its width, and never its balance.
    const { lengthCm } = shape;
    const isWidth = ({ means, bound }: Candidate): boolean => means === 'balanceCm' && !bound;
    if (lengthCm !== undefined && !this.isStrung()) this.leaveOut(isWidth);
    for (const { points, half, tokens } of this.points) {
      const value = balanceFromPoints(points, this.lengthCm());
      const fits = this.plausible('balanceCm', value) || Math.abs(points) <= 24;
      if (fits)
        this.candidates.push({ means: 'balanceCm', value, half: half * CM_PER_POINT, bound: false, tokens });
      for (const token of tokens) token.used = false;
    }
    for (const key of ['massG', 'balanceCm', 'swingWeight', 'twistWeight', 'axisCm'] as const) {
      const found = pick(key);
      if (found) specs[key] = found.value;
    }
  }

  /** A single number without any unit is the swing weight where it can be one, and only where no other was typed. */
  private takeBareSwing(): void {
    const spoken = this.candidates.some(({ means }) => means === 'swingWeight');
    const bare = this.tokens.flatMap((token, i) => {
      if (token.kind !== 'number' || token.used) return [];
      const quiet = (at: number): boolean => {
        const beside = this.tokens[at];
        // «325 strung» is as likely its weight, unless that is said as well.
        if (this.is(at, 'strung', 'unstrung') && this.result.specs.massG === undefined) return false;
        return (
          !beside || beside.used || PARTS.has(beside.is) || (beside.is === '/' && beside.kind === 'mark')
        );
      };
      return quiet(i - 1) && quiet(i + 1) && !this.inRow(i) ? [token] : [];
    });
    const [only, ...others] = bare;
    if (spoken || !only || others.length > 0 || only.fraction || !this.plausible('swingWeight', only.value))
      return;
    this.result.specs.swingWeight = only.value;
    only.used = true;
  }

  /** Strung and unstrung in one line: which value belongs to which nobody says, so that none is taken. */
  readDress(): void {
    if (this.understandDress()) {
      this.takeBareSwing();
      return;
    }
    this.result.specs = {};
    for (const { tokens } of this.candidates) for (const token of tokens) token.used = false;
  }

  /** What is left, as it was typed, without the marks that stood between what was understood. */
  leftover(): string {
    let line = '';
    this.tokens.forEach((token, i) => {
      if (token.used) return;
      const glue = i > 0 && !this.tokens[i - 1]?.used && this.glued(i - 1) ? '' : ' ';
      line += glue + token.text;
    });
    return line
      .split(/\s+/)
      .map((word) => word.replace(/^[,;/|:]+|[,;/|:]+$/g, ''))
      .filter((word) => !['', '+', '-', '(', ')'].includes(word))
      .join(' ');
  }
}

/**
 * Understands one typed line in any order and unit: weight in g, oz, kg or lb; balance in cm, mm, in, or points HL/HH; swing weight, twist weight, axis;
 * strung or unstrung, grips, overgrips, dampener; length, head size, string pattern, named shape. A label binds its number, a unit says what it can be,
 * and the sport's plausible ranges decide the rest; one number without a unit is the swing weight where it can be, three are weight, balance and swing weight
 * where only the middle one can be the balance. Said roughly (about, ~) a number is read as it is typed. A range, an ambiguous sign, a number that a word gives to
 * something else, and two values that differ are left over: nothing is guessed at.
 * @param sport tennis if left out @param lengthCm of the frame in hand, from which points count where the line names no length
 * @returns specs in g, cm, kg·cm²; what was not understood as `leftover`
 * @example parseSpecs('327 g 31.3 cm sw 299 unstrung').specs // { massG: 327, balanceCm: 31.3, swingWeight: 299 }
 */
export function parseSpecs(text: string, sport: Sport = 'tennis', lengthCm?: number): ParsedLine {
  const names = Object.keys(sportData(sport).shapes).toSorted((a, b) => b.length - a.length);
  const line = new Line(sport, lengthCm, tokensOf(text, names));
  line.readNames();
  line.readTriple();
  line.readPattern();
  line.readPoints();
  line.readNumbers();
  line.settle();
  line.readDress();
  line.result.leftover = line.leftover();
  return line.result;
}
