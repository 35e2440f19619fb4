import { Module } from '@nestjs/common';
import { APP_INTERCEPTOR } from '@nestjs/core';
import { BodyInterceptor } from './body.interceptor.js';
import { HealthController } from './health.controller.js';

@Module({ controllers: [HealthController], providers: [{ provide: APP_INTERCEPTOR, useClass: BodyInterceptor }] })
export class ApiModule {}
