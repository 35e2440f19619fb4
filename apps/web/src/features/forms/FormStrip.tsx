// The lineage of a form: the catalogs that feed it, the form, and the register that its entries go to.
import { askedIn, catalogIdOf, type FormLayout } from '@dellum/core';
import type { BuildView, FormView, RegisterView } from '@dellum/contract';
import { Strip, StripStage, StripWay } from '../../frame/LineageStrip.js';

interface FormStripProps {
  readonly form: FormView;
  readonly layout: FormLayout;
  readonly register: RegisterView;
  readonly build: BuildView;
}

/** So many catalogs are named; the rest is counted. */
const named = 4;

export function FormStrip({ form, layout, register, build }: FormStripProps) {
  const fields = askedIn(layout).flatMap(({ field }) => register.fields.find(({ key }) => key === field) ?? []);
  const fed = [...new Set(fields.flatMap(({ rule }) => catalogIdOf(rule) ?? []))].flatMap(
    (id) => build.catalogs.find((catalog) => catalog.id === id) ?? [],
  );
  const filled = form.versions.reduce((sum, version) => sum + version.filled, 0);
  return (
    <Strip>
      <StripStage name={fed.length === 1 ? 'fed by the catalog' : 'fed by catalogs'} first>
        {fed.length === 0 && 'none'}
        {fed.slice(0, named).map(({ id, title }, at) => (
          <span key={id}>
            {at > 0 && ', '}
            <StripWay to={`/catalogs/${id}`}>{title}</StripWay>
          </span>
        ))}
        {fed.length > named && ` and ${fed.length - named} more`}
      </StripStage>
      <StripStage name="asks">
        <b>{fields.length}</b> of {register.fields.length} fields
      </StripStage>
      <StripStage name="register">
        <StripWay to={`/sheets/${register.sheetId}`}>{register.title}</StripWay>
      </StripStage>
      <StripStage name="entries">
        <b>{filled}</b> came through it
      </StripStage>
    </Strip>
  );
}
