import { Module } from '@nestjs/common';
import { APP_INTERCEPTOR } from '@nestjs/core';
import { BodyInterceptor } from './body.interceptor.js';
import { HealthController } from './health.controller.js';
import { Readiness } from './readiness.js';

@Module({ controllers: [HealthController], providers: [Readiness, { provide: APP_INTERCEPTOR, useClass: BodyInterceptor }] })
export class ApiModule {}
