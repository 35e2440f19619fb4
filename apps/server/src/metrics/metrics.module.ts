import { Module } from '@nestjs/common';
import { LiveModule } from '../live/live.module.js';
import { Metrics } from './metrics.js';

@Module({ imports: [LiveModule], providers: [Metrics] })
export class MetricsModule {}
