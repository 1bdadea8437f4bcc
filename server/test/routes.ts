import { RequestMethod } from '@nestjs/common';
import { METHOD_METADATA, PATH_METADATA, ROUTE_ARGS_METADATA } from '@nestjs/common/constants';
import { ModulesContainer } from '@nestjs/core';
import { ACCESS } from '../src/identity/access.js';
import { actOf } from '../src/platform/act.js';
import { seenVersion } from '../src/platform/version.js';
import type { House } from './house.js';

export interface Route {
  method: string;
  path: string;
  rights: string[] | undefined;
  /** Whether it wants an Idempotency-Key, and the version that was seen. */
  wantsKey: boolean;
  wantsVersion: boolean;
}

/** Whether a route's function has a parameter that a decorator of ours fills. */
function takes(controller: object, name: string, factory: unknown): boolean {
  const args = (Reflect.getMetadata(ROUTE_ARGS_METADATA, controller, name) ?? {}) as Record<string, { factory?: unknown }>;
  return Object.values(args).some((arg) => arg.factory === factory);
}

/** Every route of every controller, with the rights it asks for. */
export function routesOf(house: House): Route[] {
  const routes: Route[] = [];
  for (const module of house.app.get(ModulesContainer).values()) {
    for (const { metatype } of module.controllers.values()) {
      const proto = (metatype as { prototype: Record<string, unknown> } | null)?.prototype ?? {};
      for (const name of Object.getOwnPropertyNames(proto)) {
        const handler = proto[name];
        const method = typeof handler === 'function' ? (Reflect.getMetadata(METHOD_METADATA, handler) as number | undefined) : undefined;
        if (method === undefined) continue;
        const base = String(Reflect.getMetadata(PATH_METADATA, metatype as object));
        const path = String(Reflect.getMetadata(PATH_METADATA, handler as object));
        const rights = (Reflect.getMetadata(ACCESS, handler as object) ?? Reflect.getMetadata(ACCESS, metatype as object)) as
          string[] | undefined;
        routes.push({
          method: RequestMethod[method]!.toLowerCase(),
          path: `/${base}/${path}`.replace(/\/+/g, '/').replace(/\/$/, ''),
          rights,
          wantsKey: takes(metatype as object, name, actOf),
          wantsVersion: takes(metatype as object, name, seenVersion),
        });
      }
    }
  }
  return routes;
}
