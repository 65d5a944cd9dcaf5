import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { parse as parseComponent } from 'vue/compiler-sfc';

/** A sentence of the interface, and where it is written. */
export interface Sentence {
  file: string;
  text: string;
}

const ROOT = join(import.meta.dirname, '../..');
/** What a person reads is written in the page, and in the words that server and page share. */
const files = [
  ...readdirSync(join(ROOT, 'web/src'), { recursive: true, encoding: 'utf8' }).map(
    (name) => `web/src/${name}`,
  ),
  ...readdirSync(join(ROOT, 'contract/src'))
    .filter((name) => /errors|words|judgements/.test(name))
    .map((name) => `contract/src/${name}`),
].filter((name) => /\.(ts|vue)$/.test(name) && !/\.test\.ts$/.test(name));
/** Attributes that a person reads or hears. */
const READ = new Set([
  'label',
  'title',
  'hint',
  'placeholder',
  'aria-label',
  'store',
  'missing',
  'suffix',
  'aside-label',
]);
/** Names in code have no space; what a person reads nearly always has one. */
const isSaid = (text: string): boolean =>
  /[A-Za-z’]+ [A-Za-z’]+/.test(text) && !/[{}<>=]|=>|\bvar\(/.test(text);

/** What is written in the strings of a script; what is filled in is left out. */
function stringsOf(script: string): string[] {
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) found.push(node.text);
    if (ts.isTemplateExpression(node))
      found.push([node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)].join('…'));
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile('a.ts', script, ts.ScriptTarget.Latest, true));
  return found.filter(isSaid);
}

interface TemplateNode {
  type: number;
  content?: unknown;
  children?: TemplateNode[];
  props?: { type: number; name: string; value?: { content: string }; exp?: { content: string } }[];
  loc: { source: string };
}
const ELEMENT = 1;
const TEXT = 2;
const INTERPOLATION = 5;
const ATTRIBUTE = 6;
const INLINE = /^(b|i|em|code|kbd|span|a|button|router-link|RouterLink|template|abbr)$/;

/** The sentences of a template: text runs on through what is marked within it. */
function templateSentences(node: TemplateNode & { tag?: string }): string[] {
  const found: string[] = [];
  let run = '';
  const end = (): void => {
    const text = run.replace(/\s+/g, ' ').trim();
    if (isSaid(text)) found.push(text);
    run = '';
  };
  for (const child of (node.children ?? []) as (TemplateNode & { tag?: string })[]) {
    if (child.type === TEXT) run += String(child.content);
    else if (child.type === INTERPOLATION) {
      run += '…';
      found.push(...stringsOf(`(${(child.content as { content: string }).content})`));
    } else if (child.type === ELEMENT) {
      for (const prop of child.props ?? []) {
        if (prop.type === ATTRIBUTE && READ.has(prop.name) && prop.value) found.push(prop.value.content);
        if (prop.exp) found.push(...stringsOf(`(${prop.exp.content})`));
      }
      if (INLINE.test(child.tag ?? '') && (child.children ?? []).every(({ type }) => type !== ELEMENT)) {
        run += (child.children ?? []).map((c) => (c.type === TEXT ? String(c.content) : '…')).join('');
      } else {
        end();
        found.push(...templateSentences(child));
      }
    }
  }
  end();
  return found;
}

/** Every sentence that the page, its words files and the shared words say. */
export function sentences(): Sentence[] {
  return files.flatMap((file) => {
    const source = readFileSync(join(ROOT, file), 'utf8');
    const at = (text: string): Sentence => ({ file, text });
    if (!file.endsWith('.vue')) return stringsOf(source).map(at);
    const { template, scriptSetup, script } = parseComponent(source).descriptor;
    return [
      ...(template?.ast ? templateSentences(template.ast as unknown as TemplateNode) : []),
      ...stringsOf(scriptSetup?.content ?? script?.content ?? ''),
    ].map(at);
  });
}
