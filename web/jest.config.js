const options = {
  jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } } },
  module: { type: 'commonjs' },
};

export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  transform: { '^.+\\.(tsx?|js)$': ['@swc/jest', options] },
  transformIgnorePatterns: ['/node_modules/(?!(@vectrum|react-router|openapi-fetch)/)'],
};
