// HTTP for people; administrators only.
import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Put } from '@nestjs/common';
import { AddPersonDto, AdmitDto, ChangePersonDto, FactorRolesDto, ResetPasswordDto, type Person, type Role } from '@dellum/contract';
import { IdPipe } from '../problems/index.js';
import { Asking, For, type Caller } from '../access/access.js';
import { PeopleService } from './people.service.js';
import { SecondFactorService } from './secondFactor.service.js';

@Controller('people')
@For('administrator')
export class PeopleController {
  constructor(
    private readonly people: PeopleService,
    private readonly factors: SecondFactorService,
  ) {}

  @Get()
  all(@Asking() caller: Caller): Promise<Person[]> {
    return this.people.all(caller);
  }

  /** The roles that need a second factor. */
  @Get('factor')
  factor(@Asking() caller: Caller): Promise<{ roles: Role[] }> {
    return this.factors.requiredOf(caller);
  }

  @Put('factor')
  @HttpCode(204)
  requireFactor(@Asking() caller: Caller, @Body() dto: FactorRolesDto): Promise<void> {
    return this.factors.require(caller, dto.roles);
  }

  @Post()
  add(@Asking() caller: Caller, @Body() dto: AddPersonDto): Promise<{ id: string }> {
    return this.people.add(caller, dto);
  }

  @Patch(':id')
  @HttpCode(204)
  change(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangePersonDto): Promise<void> {
    return this.people.change(caller, id, dto);
  }

  @Post(':id/password')
  @HttpCode(204)
  resetPassword(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ResetPasswordDto): Promise<void> {
    return this.people.resetPassword(caller, id, dto.password);
  }

  /** Puts somebody out of the house, or lets them in again. */
  @Put(':id/admitted')
  @HttpCode(204)
  admit(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: AdmitDto): Promise<void> {
    return this.people.admit(caller, id, dto.admitted);
  }

  /** Takes the second factor of somebody away who has lost it. */
  @Delete(':id/factor')
  @HttpCode(204)
  resetFactor(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.factors.reset(caller, id);
  }

  @Delete(':id/sessions')
  @HttpCode(204)
  signOut(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.people.signOutEverywhere(caller, id);
  }
}
