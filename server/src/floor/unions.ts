import { type OpenAPIObject, getSchemaPath } from '@nestjs/swagger';

interface Shape {
  kind: string;
  dto: new () => object;
}

const TASK_PATH = '/api/floor/tasks/{kind}/{key}';

/** One of several shapes, told apart by `kind`. */
const union = (shapes: readonly Shape[]) => ({
  oneOf: shapes.map(({ dto }) => ({ $ref: getSchemaPath(dto) })),
  discriminator: { propertyName: 'kind', mapping: Object.fromEntries(shapes.map(({ kind, dto }) => [kind, getSchemaPath(dto)])) },
});

/** Says in the API's document what a command and a task can be: the modules that register them know, the controller does not. */
export function withUnions(document: OpenAPIObject, commands: readonly Shape[], tasks: readonly Shape[]): OpenAPIObject {
  const schemas = document.components?.schemas ?? {};
  const post = schemas['FloorPostDto'];
  const answer = document.paths[TASK_PATH]?.get?.responses['200'];
  if (!post || !('properties' in post) || !post.properties || !answer || '$ref' in answer) throw new Error('The floor has no doors');
  schemas['FloorCommand'] = union(commands);
  schemas['FloorTask'] = union(tasks);
  post.properties['command'] = { $ref: '#/components/schemas/FloorCommand' };
  answer.content = { 'application/json': { schema: { $ref: '#/components/schemas/FloorTask' } } };
  return document;
}
