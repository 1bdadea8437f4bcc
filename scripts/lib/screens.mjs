// Reads the routes of the interface and of the server out of their source: which file is behind a screen, which route it
// asks, and which service answers.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import ts from 'typescript';
import { ROOT } from './shell.mjs';

const WEB = join(ROOT, 'web/src');
const SERVER = join(ROOT, 'server/src');
const FACES = ['door/routes.tsx', 'office/routes.tsx', 'floor/door.tsx', 'floor/routes.tsx', 'bench/routes.tsx'];

const parse = (path) =>
  ts.createSourceFile(
    path,
    readFileSync(path, 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );

function walk(node, visit) {
  visit(node);
  node.forEachChild((child) => walk(child, visit));
}

/** The file behind a relative import of the interface; undefined where it leads elsewhere. */
function fileOf(from, specifier) {
  if (!specifier.startsWith('.')) return undefined;
  const path = resolve(dirname(from), specifier);
  return [`${path}.tsx`, `${path}.ts`].find(existsSync);
}

function importsOf(source) {
  const found = new Map();
  for (const statement of source.statements) {
    if (!ts.isImportDeclaration(statement)) continue;
    const file = fileOf(source.fileName, statement.moduleSpecifier.text);
    const names = statement.importClause?.namedBindings;
    if (file && names && ts.isNamedImports(names)) for (const { name } of names.elements) found.set(name.text, file);
  }
  return found;
}

const property = (object, name) => object.properties.find((p) => ts.isPropertyAssignment(p) && p.name.getText() === name)?.initializer;

/** Every screen of the interface: its address, its component and the file that it is in. */
export function screens() {
  const found = [];
  const read = (object, base, files, from) => {
    const own = property(object, 'path')?.text ?? '';
    const path = own.startsWith('/') ? own : own ? `${base === '/' ? '' : base}/${own}` : base;
    const element = property(object, 'element');
    // A page that is fetched when it is opened says where it is: (await import('./page')).Page.
    const lazy = /import\('([^']+)'\)\)\.(\w+)/.exec(property(object, 'lazy')?.getText() ?? '');
    const component = (element && /^<(\w+)/.exec(element.getText())?.[1]) ?? lazy?.[2];
    const children = property(object, 'children');
    const redirect = component === 'Navigate';
    const shell = component !== undefined && children !== undefined && own === '';
    const indexed = children && ts.isArrayLiteralExpression(children) && children.elements.some((c) => property(c, 'index'));
    if (component && !redirect && !shell && !(indexed && children))
      found.push({ path: path || '/', component, file: lazy ? fileOf(from, lazy[1]) : files.get(component) });
    if (children && ts.isArrayLiteralExpression(children))
      for (const child of children.elements) if (ts.isObjectLiteralExpression(child)) read(child, path, files, from);
  };
  for (const face of FACES) {
    const source = parse(join(WEB, face));
    const files = importsOf(source);
    for (const statement of source.statements) {
      if (!ts.isVariableStatement(statement)) continue;
      const start = statement.declarationList.declarations[0]?.initializer;
      if (!start) continue;
      if (ts.isObjectLiteralExpression(start)) read(start, '', files, source.fileName);
      if (ts.isArrayLiteralExpression(start)) for (const one of start.elements) read(one, '', files, source.fileName);
    }
  }
  return found.map((s) => ({ ...s, file: relative(ROOT, s.file) }));
}

/** The routes that a piece of source asks. */
function callsIn(node) {
  const calls = [];
  walk(node, (n) => {
    if (!ts.isCallExpression(n)) return;
    const called = /^api\.(GET|POST|PUT|PATCH|DELETE)$/.exec(n.expression.getText());
    if (called && n.arguments[0] && ts.isStringLiteral(n.arguments[0])) calls.push(`${called[1]} ${n.arguments[0].text}`);
  });
  return calls;
}

/** The routes that one function of a file asks. */
function callsOf(file, name) {
  const declared = parse(file).statements.filter(
    (s) =>
      (ts.isFunctionDeclaration(s) && s.name?.text === name) ||
      (ts.isVariableStatement(s) && s.declarationList.declarations.some((d) => d.name.getText() === name)),
  );
  return declared.flatMap(callsIn);
}

/** The server's routes that a file asks: by itself, through what lies beside it, and through functions from elsewhere. */
function asked(path, seen = new Set()) {
  if (seen.has(path)) return [];
  seen.add(path);
  const source = parse(path);
  const isBeside = (file) => dirname(file) === dirname(path) || dirname(file).startsWith(`${dirname(path)}/`);
  const others = [...importsOf(source)].flatMap(([name, file]) => (isBeside(file) ? asked(file, seen) : callsOf(file, name)));
  return [...callsIn(source), ...others];
}

function* filesIn(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesIn(path);
    else yield path;
  }
}

/** The server's routes by method and path: the controller's file and the service that does it. */
function answers() {
  const found = new Map();
  for (const path of filesIn(SERVER)) {
    if (!path.endsWith('.controller.ts')) continue;
    const source = parse(path);
    const files = new Map();
    for (const s of source.statements)
      if (ts.isImportDeclaration(s) && s.importClause?.namedBindings && ts.isNamedImports(s.importClause.namedBindings))
        for (const { name } of s.importClause.namedBindings.elements) files.set(name.text, s.moduleSpecifier.text);
    for (const controller of source.statements.filter(ts.isClassDeclaration)) {
      const base = decorator(controller, 'Controller') ?? '';
      const services = new Map();
      for (const member of controller.members)
        if (ts.isConstructorDeclaration(member)) for (const p of member.parameters) services.set(p.name.getText(), p.type?.getText() ?? '');
      for (const method of controller.members.filter(ts.isMethodDeclaration)) {
        for (const verb of ['Get', 'Post', 'Put', 'Patch', 'Delete']) {
          const own = decorator(method, verb);
          if (own === undefined) continue;
          const called = [...method.getText().matchAll(/this\.(\w+)\s*\.(\w+)\(/g)].find(([, name]) => services.has(name));
          const route = `/${[base, own].filter(Boolean).join('/')}`.replace(/:(\w+)/g, '{$1}');
          const service = called ? services.get(called[1]) : undefined;
          const file = service ? serviceFile(path, files.get(service), service) : undefined;
          found.set(`${verb.toUpperCase()} ${route}`, {
            controller: relative(ROOT, path),
            does: service ? `${service}.${called[2]}` : '',
            file,
          });
        }
      }
    }
  }
  return found;
}

/** The text of a decorator's first argument; '' where it has none, undefined where there is no such decorator. */
function decorator(node, name) {
  const found = (ts.getDecorators(node) ?? []).find((d) => ts.isCallExpression(d.expression) && d.expression.expression.getText() === name);
  if (!found) return undefined;
  const first = found.expression.arguments[0];
  return first && ts.isStringLiteral(first) ? first.text : '';
}

/** Where a service is written: beside its controller, or behind another module's face. */
function serviceFile(controller, specifier, service) {
  if (!specifier) return undefined;
  const path = resolve(dirname(controller), specifier.replace(/\.js$/, '.ts'));
  if (!path.endsWith('/index.ts')) return relative(ROOT, path);
  const shown = new RegExp(`\\{[^}]*\\b${service}\\b[^}]*\\} from '(\\.[^']+)'`).exec(readFileSync(path, 'utf8'));
  return shown ? relative(ROOT, resolve(dirname(path), shown[1].replace(/\.js$/, '.ts'))) : relative(ROOT, path);
}

/** The map of screens as a page of the docs. */
export function screensPage() {
  const routes = answers();
  const link = (path) => `[${path.replace(/^.*?\/src\//, '')}](../${path})`;
  const lines = screens().map(({ path, component, file }) => {
    const asks = [...new Set(asked(join(ROOT, file)))].sort();
    const rows = asks.map((route) => {
      const behind = routes.get(route);
      const where = behind?.file ? `${behind.does} in ${link(behind.file)}` : behind ? link(behind.controller) : 'no controller';
      return `  - \`${route}\`: ${where}`;
    });
    return [`- \`${path}\`: ${component} in ${link(file)}`, ...rows].join('\n');
  });
  return `# Screens, and the code behind them

Written by \`npm run screens\` from the routes of the interface and of the server. Beneath each screen stand the server's routes that it asks, by itself or through the files beside it, with the service that answers. What the floor does goes through one door, \`POST /api/floor/commands\`; see "One way from a scan to the ledger" in architecture.md.

${lines.join('\n')}
`;
}
