const transformer = (syntax, transform) => [
  '@swc/jest',
  { jsc: { target: 'es2022', keepClassNames: true, parser: { syntax, decorators: true }, transform }, module: { type: 'commonjs' } },
];

// Nest is ES modules only; Jest runs it as CommonJS, so these packages are translated.
const ESM_ONLY = '@nestjs|typeorm|uuid|file-type|strtok3|token-types|uint8array-extras|@tokenizer|@borewit|nodemailer|pino-http';

export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/test', '<rootDir>/src'],
  testMatch: ['**/*.test.ts'],
  resolver: '<rootDir>/jest.resolver.cjs',
  testTimeout: 120_000,
  transform: {
    '^.+\\.ts$': transformer('typescript', { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false }),
    '^.+\\.m?js$': transformer('ecmascript'),
  },
  transformIgnorePatterns: [`/node_modules/(?!(${ESM_ONLY})/)`],
};
