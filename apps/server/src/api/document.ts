import type { INestApplication } from '@nestjs/common';
import { ApiProperty, type ApiPropertyOptions, DocumentBuilder, type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import { declaredFields, type FieldSpec } from '@sift-reel/forms';

let described = false;

/** Writes what the form fields declare of themselves into the API document's own metadata. Once a process. */
function describeFields(): void {
  if (described) return;
  described = true;
  for (const { target, key, spec } of declaredFields) ApiProperty(toApiProperty(spec))(target, key);
}

function toApiProperty(spec: FieldSpec): ApiPropertyOptions {
  if (spec.kind === 'object' && spec.of === undefined)
    return { type: 'object', additionalProperties: true, ...(spec.description === undefined ? {} : { description: spec.description }) };
  const type = spec.kind === 'object' ? spec.of!() : spec.kind === 'text' ? String : spec.kind === 'flag' ? Boolean : Number;
  const options: Record<string, unknown> = { type: () => type, required: spec.optional !== true };
  if (spec.list === true) options['isArray'] = true;
  if (spec.nullable === true) options['nullable'] = true;
  if (spec.values !== undefined) options['enum'] = [...spec.values];
  if (spec.integer === true) options['type'] = 'integer';
  for (const name of ['description', 'format'] as const) if (spec[name] !== undefined) options[name] = spec[name];
  if (spec.list !== true) {
    if (spec.min !== undefined && spec.min > 0) options['minimum'] = spec.min;
    if (spec.max !== undefined) options['maximum'] = spec.max;
    if (spec.minLength !== undefined && spec.minLength > 0) options['minLength'] = spec.minLength;
  }
  return options as ApiPropertyOptions;
}

/** The OpenAPI document of the API; the web's client is generated from it. */
export function apiDocument(app: INestApplication): OpenAPIObject {
  describeFields();
  const config = new DocumentBuilder()
    .setTitle('Sift Reel')
    .setDescription(
      'Recordings in; ranked, explained shorts, laid out over client channels, out. Times of a recording are integer milliseconds from its start; errors are RFC 9457 problem details.',
    )
    .setVersion('1')
    .addCookieAuth('sift-reel')
    .build();
  return SwaggerModule.createDocument(app, config, { operationIdFactory: (_, method) => method });
}
