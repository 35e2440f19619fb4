// HTTP for the threshold of the instance and the first house.
import { Body, Controller, Get, HttpCode, Post, Query, Req, Res } from '@nestjs/common';
import { MakeHouseDto, type Threshold } from '@dellum/contract';
import type { Request, Response } from 'express';
import { Open, Takes } from '../access/access.js';
import { HousesService } from './houses.service.js';

@Controller('houses')
@Open()
export class HousesController {
  constructor(private readonly houses: HousesService) {}

  @Get('threshold')
  threshold(@Query('house') house?: string): Promise<Threshold> {
    return this.houses.threshold(typeof house === 'string' ? house : undefined);
  }

  @Post()
  @HttpCode(204)
  @Takes('small')
  async makeFirst(@Body() dto: MakeHouseDto, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    response.setHeader('Set-Cookie', await this.houses.makeFirst(dto, { cookies: request.headers.cookie, secure: request.secure }));
  }
}
