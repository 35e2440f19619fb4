// HTTP for the house one is in; administrators only.
import { Body, Controller, HttpCode, Patch } from '@nestjs/common';
import { ChangeHouseDto } from '@dellum/contract';
import { Asking, For, type Caller } from '../access/access.js';
import { HousesService } from './houses.service.js';

@Controller('house')
@For('administrator')
export class HouseController {
  constructor(private readonly houses: HousesService) {}

  @Patch()
  @HttpCode(204)
  change(@Asking() caller: Caller, @Body() dto: ChangeHouseDto): Promise<void> {
    return this.houses.change(caller, dto);
  }
}
