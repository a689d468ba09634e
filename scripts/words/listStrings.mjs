// Lists the strings that a user can see, and comments, from the syntax trees of the sources.
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';
import { root } from '../root.mjs';

const SKIPPED_FOLDERS = new Set(['node_modules', '.git', 'dist', 'dumps', 'testing', 'migrations', 'words']);

/** Attributes whose text is not shown. */
const HIDDEN_ATTRIBUTES = new Set(
  `className class key id to href type name d viewBox fill stroke transform style role variant size color kind htmlFor inputMode autoComplete
   points strokeDasharray textAnchor dominantBaseline markerEnd xmlns rel target enterKeyHint path component slot gap tone
   preserveAspectRatio strokeLinecap aria-live align scope method placement orientation part field of`.split(/\s+/u),
);

/** Functions whose text arguments are not shown. */
const HIDDEN_CALLS = new Set(
  `require import createRequire querySelector querySelectorAll getElementById addEventListener removeEventListener matchMedia setAttribute
   getAttribute closest getItem setItem removeItem startsWith endsWith includes split join replace replaceAll indexOf on once emit createIndex
   createElement fetch select where andWhere orderBy addOrderBy query set get header setHeader postMessage createSlice createApi Symbol is
   dispatchEvent localeCompare test match exec literal enum pick omit discriminatedUnion run spawn spawnSync createHash digest update`.split(
    /\s+/u,
  ),
);

/** Source files in a folder, without tests. */
function sourcesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return SKIPPED_FOLDERS.has(entry.name) ? [] : sourcesIn(path);
    const isSource = /\.(tsx?|mjs)$/u.test(entry.name) && !/\.(test|spec)\.tsx?$|\.d\.ts$/u.test(entry.name);
    return isSource ? [path] : [];
  });
}

/** All source files with what is shown, or commented, in them. */
export function sources() {
  return ['packages', 'scripts']
    .flatMap((folder) => sourcesIn(join(root, folder)))
    .sort()
    .map((path) => ({ path: relative(root, path), text: readFileSync(path, 'utf8') }));
}

const parsed = (path, text) =>
  ts.createSourceFile(
    path,
    text,
    ts.ScriptTarget.Latest,
    true,
    path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );

/** A text, or a template with `{}` for its values; null for anything else. */
function wordsOf(node) {
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
  if (!ts.isTemplateExpression(node)) return null;
  return node.head.text + node.templateSpans.map(({ literal }) => `{}${literal.text}`).join('');
}

function elementWords(element) {
  return element.children
    .map((child) => {
      if (ts.isJsxText(child)) return child.text;
      if (ts.isJsxElement(child)) return elementWords(child);
      return ts.isJsxExpression(child) && child.expression && ts.isStringLiteral(child.expression)
        ? child.expression.text
        : '{}';
    })
    .join('');
}

/** Two words, or one that begins with a capital: the rest are ids and keys. */
const isShown = (text) => /\p{L}[\s,.:;]+\S*\p{L}/u.test(text) || /^[A-Z][a-z]+/u.test(text.trim());

/**
 * The strings of one file that a user can see.
 *
 * @returns {{ path: string, line: number, words: string }[]} with `{}` for values
 */
export function stringsOf({ path, text }) {
  const file = parsed(path, text);
  const found = [];
  const put = (node, words) => {
    const { line } = file.getLineAndCharacterOfPosition(node.getStart(file));
    found.push({ path, line: line + 1, words: words.replace(/\s+/gu, ' ').trim() });
  };
  const visit = (node) => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node)) return;
    // Style sheets, SQL and the like.
    if (ts.isTaggedTemplateExpression(node)) return;
    if (ts.isJsxAttribute(node)) {
      const name = node.name.getText(file);
      if (HIDDEN_ATTRIBUTES.has(name) || name.startsWith('data-')) return;
    }
    if ((ts.isJsxElement(node) || ts.isJsxFragment(node)) && node.children.some(ts.isJsxText)) {
      const words = elementWords(node);
      if (/\p{L}/u.test(words)) put(node, words);
    }
    if (ts.isCallExpression(node)) {
      const called = ts.isPropertyAccessExpression(node.expression)
        ? node.expression.name.text
        : node.expression.getText(file);
      if (HIDDEN_CALLS.has(called)) {
        for (const argument of node.arguments) if (wordsOf(argument) === null) visit(argument);
        visit(node.expression);
        return;
      }
    }
    const words = wordsOf(node);
    if (words !== null) {
      const isKey =
        ts.isElementAccessExpression(node.parent) ||
        ts.isCaseClause(node.parent) ||
        (ts.isPropertyName(node) && node.parent.name === node);
      if (!isKey && isShown(words)) put(node, words);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

/** The comments of one file. */
export function commentsOf({ path, text }) {
  const file = parsed(path, text);
  const found = new Map();
  const visit = (node) => {
    const ranges = [
      ...(ts.getLeadingCommentRanges(text, node.getFullStart()) ?? []),
      ...(ts.getTrailingCommentRanges(text, node.getEnd()) ?? []),
    ];
    for (const { pos, end } of ranges) {
      const { line } = file.getLineAndCharacterOfPosition(pos);
      const words = text
        .slice(pos, end)
        .replace(/^\/\*\*?|\*\/$|^\/\//gu, '')
        .replace(/\n\s*\*/gu, ' ');
      found.set(pos, { path, line: line + 1, words: words.replace(/\s+/gu, ' ').trim() });
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return [...found.values()];
}
