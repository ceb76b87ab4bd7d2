import { Module } from '@nestjs/common';
import { ResourceSettings } from '@jigsaw/contract/resource';
import { resourceFacts } from '@jigsaw/core/resource';
import { asNews, Kinds, ReleaseModule } from '../release/index.js';

@Module({ imports: [ReleaseModule] })
export class ResourceModule {
  constructor(kinds: Kinds) {
    kinds.register({ ...resourceFacts, ...asNews, settings: ResourceSettings });
  }
}
