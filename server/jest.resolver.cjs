// Finds the TypeScript behind ".js" imports, and the ES modules of packages that ship nothing else.
module.exports = (request, options) => {
  try {
    return options.defaultResolver(request, options);
  } catch {
    if (/^\.{1,2}\/.*\.js$/.test(request)) return options.defaultResolver(request.replace(/\.js$/, '.ts'), options);
    return options.defaultResolver(request, { ...options, conditions: ['node', 'import', 'default'] });
  }
};
