// HTTP for the build: everyone reads what the role may see, administrators change it.
import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Put } from '@nestjs/common';
import {
  ChangeKindDto,
  ChangeFieldDto,
  ChangeSheetDto,
  ClosingDto,
  LimitSheetDto,
  MakeFieldDto,
  MakeListDto,
  MakeSheetDto,
  MakeTableDto,
  PlaceDto,
  RetitleDto,
  type BuildView,
  type ClosingTrial,
  type Outcome,
  type KindTrial,
} from '@dellum/contract';
import { Asking, everyRole, For, type Caller, Takes } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { ClosingsService } from './closings.service.js';
import { FieldKindsService } from './fieldKinds.service.js';
import { SheetsService } from './sheets.service.js';

type Made = Promise<{ id: string }>;

@Controller()
@For('administrator')
export class SheetsController {
  constructor(
    private readonly sheets: SheetsService,
    private readonly kinds: FieldKindsService,
    private readonly closings: ClosingsService,
  ) {}

  @Get('build')
  @For(...everyRole)
  build(@Asking() caller: Caller): Promise<BuildView> {
    return this.sheets.build(caller);
  }

  @Post('sheets')
  make(@Asking() caller: Caller, @Body() dto: MakeSheetDto): Made {
    return this.sheets.make(caller, dto);
  }

  @Patch('sheets/:id')
  alter(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangeSheetDto): Made {
    return this.sheets.alter(caller, id, dto);
  }

  @Put('sheets/:id/limits')
  limit(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: LimitSheetDto): Made {
    return this.sheets.limit(caller, id, dto);
  }

  @Post('sheets/:id/place')
  @HttpCode(200)
  place(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: PlaceDto): Made {
    return this.sheets.place(caller, 'sheets', id, dto.before);
  }

  @Post('sheets/:id/copies')
  duplicate(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Made {
    return this.sheets.duplicate(caller, id);
  }

  @Delete('sheets/:id')
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Made {
    return this.sheets.remove(caller, id);
  }

  @Post('lists')
  @Takes('blocks')
  makeList(@Asking() caller: Caller, @Body() dto: MakeListDto): Made {
    return this.sheets.makeList(caller, dto);
  }

  @Post('tables')
  @Takes('blocks')
  makeTable(@Asking() caller: Caller, @Body() dto: MakeTableDto): Made {
    return this.sheets.makeTable(caller, dto);
  }

  @Post('registers/:id/place')
  @HttpCode(200)
  placeList(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: PlaceDto): Made {
    return this.sheets.place(caller, 'registers', id, dto.before);
  }

  @Post('fields/:id/place')
  @HttpCode(200)
  placeField(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: PlaceDto): Made {
    return this.sheets.place(caller, 'fields', id, dto.before);
  }

  @Patch('registers/:id')
  retitleList(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: RetitleDto): Promise<Outcome> {
    return this.sheets.retitleList(caller, id, dto.title);
  }

  /** When its entries are closed to all but administrators. */
  @Put('registers/:id/closing')
  @HttpCode(204)
  close(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ClosingDto): Promise<void> {
    return this.closings.set(caller, id, dto);
  }

  @Post('registers/:id/closing/trial')
  @HttpCode(200)
  closingTrial(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ClosingDto): Promise<ClosingTrial> {
    return this.closings.trial(caller, id, dto);
  }

  @Delete('registers/:id')
  removeList(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Made {
    return this.sheets.removeList(caller, id);
  }

  @Post('registers/:id/fields')
  makeField(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: MakeFieldDto): Made {
    return this.sheets.makeField(caller, id, dto);
  }

  @Patch('fields/:id')
  changeField(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangeFieldDto): Made {
    return this.sheets.changeField(caller, id, dto);
  }

  /** What another kind would do to what the entries hold; nothing is stored. */
  @Post('fields/:id/kind/trial')
  @HttpCode(200)
  tryKind(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangeKindDto): Promise<KindTrial> {
    return this.kinds.trial(caller, id, dto);
  }

  @Put('fields/:id/kind')
  @HttpCode(204)
  changeKind(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangeKindDto): Promise<void> {
    return this.kinds.change(caller, id, dto);
  }

  @Delete('fields/:id')
  removeField(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Made {
    return this.sheets.removeField(caller, id);
  }
}
