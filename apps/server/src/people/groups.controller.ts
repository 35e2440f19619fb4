// HTTP for groups of people; administrators only. Which there are stands in the build.
import { Body, Controller, Delete, Param, Post, Put } from '@nestjs/common';
import { GroupDto } from '@dellum/contract';
import { IdPipe } from '../problems/index.js';
import { Asking, For, type Caller } from '../access/access.js';
import { GroupsService } from './groups.service.js';

@Controller('groups')
@For('administrator')
export class GroupsController {
  constructor(private readonly groups: GroupsService) {}

  @Post()
  make(@Asking() caller: Caller, @Body() dto: GroupDto): Promise<{ id: string }> {
    return this.groups.make(caller, dto);
  }

  @Put(':id')
  alter(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: GroupDto): Promise<{ id: string }> {
    return this.groups.alter(caller, id, dto);
  }

  @Delete(':id')
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<{ id: string }> {
    return this.groups.remove(caller, id);
  }
}
