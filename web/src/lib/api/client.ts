// The shop's own API, typed from its OpenAPI document. Every refusal becomes a `Refusal` with a sentence to show.
import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type JobFile = Schemas['JobFile'];
export type JobRow = Schemas['JobRow'];
export type Packing = Schemas['PackingView'];
export type RecipientView = Schemas['RecipientView'];
export type SendingView = Schemas['SendingView'];
export type Tick = Schemas['TickView'];
export type JobView = Schemas['JobView'];
export type KnotView = Schemas['KnotView'];
export type WorkOut = Schemas['WorkOut'];
export type WayView = Schemas['WayView'];
export type QuoteView = Schemas['QuoteView'];
export type RefusedView = Schemas['RefusedView'];
export type Docket = Schemas['Docket'];
export type Layout = Schemas['Layout'];
export type WhyView = Schemas['WhyView'];
export type LineAnswer = Schemas['LineAnswer'];
export type ShopView = Schemas['ShopView'];
export type WhichShop = Schemas['WhichShop'];
export type ShopFile = Schemas['ShopFile'];
export type Problem = Schemas['Problem'];
export type PartEntry = Schemas['PartEntry'];
export type StepEntry = Schemas['StepEntry'];
export type LayerEntry = Schemas['LayerEntry'];
export type TariffFormRow = Schemas['FormRow'];
export type AccessView = Schemas['AccessView'];
export type ExtraEntry = Schemas['ExtraEntry'];
export type PartView = Schemas['PartView'];
export type HazardView = Schemas['HazardView'];
export type ShapeView = Schemas['ShapeView'];
export type RunView = Schemas['RunView'];
export type ArrangedView = Schemas['ArrangedView'];
export type FaultView = Schemas['FaultView'];
export type ThingShapes = Schemas['ThingShapes'];
export type FillView = Schemas['FillView'];
export type Placement = Schemas['Placement'];
export type IntoView = Schemas['IntoView'];
export type ArrangementEntry = Schemas['ArrangementEntry'];
export type KindRow = Schemas['KindRow'];
export type KindView = Schemas['KindView'];
export type KindFile = Schemas['KindFile'];
export type TakenIn = Schemas['TakenIn'];
export type ShapeKind = Schemas['ShapeKind'];
export type FormChoice = Schemas['FormChoice'];
export type CostsView = Schemas['CostsView'];
export type PlanKey = Schemas['PlanKey'];
export type PlanRow = Schemas['PlanRow'];
export type PlanTable = Schemas['PlanTable'];
export type PlanUnfolded = Schemas['PlanUnfolded'];
export type TableRequest = Schemas['TableRequest'];
export type RungView = Schemas['RungView'];
export type ParcelsView = Schemas['ParcelsView'];
export type ComparedRows = Record<string, Schemas['ComparedRow']>;
export type FoldView = Schemas['FoldView'];
export type FoldedBlank = Schemas['FoldedBlank'];
export type StepsRequest = Schemas['StepsRequest'];
export type StepsView = Schemas['StepsView'];
export type LiveQuotes = Schemas['LiveQuotes'];
export type LiveQuote = Schemas['LiveQuote'];
export type LabelRequest = Schemas['LabelRequest'];
export type LabelView = Schemas['LabelView'];
export type TrackingSaid = Schemas['TrackingSaid'];
export type TariffFile = Schemas['TariffFile'];
export type TariffWhole = Schemas['TariffWhole'];
export type LookedOver = Schemas['LookedOver'];
export type CopyRow = Schemas['CopyRow'];
export type CopyChanges = Schemas['ChangesView'];
export type FuelRow = Schemas['FuelRow'];
export type ComparedTariffs = Schemas['Compared'];
export type TariffRow = Schemas['TariffRow'];
export type CuttingView = Schemas['CuttingView'];
export type RevisionRow = Schemas['RevisionRow'];
export type WrapList = Schemas['WrapList'];

const api = createClient<paths>({ baseUrl: '' });

/** What the server would not do, in its own sentence. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly field = '',
    readonly newestRevision: number | null = null,
    /** Code of what has the name already. */
    readonly taken = '',
  ) {
    super(message);
  }
}

const UNREACHABLE =
  "The shop's server is not responding. What you typed stays here and is saved when it is back.";

/** The data of an answer, or a Refusal. The caller says which schema it is: the client's own types lose tuples. */
async function answer<T>(
  asked: Promise<{ data?: unknown; error?: unknown; response: Response }>,
): Promise<T> {
  let got;
  try {
    got = await asked;
  } catch (fault) {
    if (fault instanceof DOMException && fault.name === 'AbortError') throw fault;
    throw new Refusal(0, UNREACHABLE);
  }
  if (got.data !== undefined) return got.data as T;
  const problem = got.error as Partial<Problem> | undefined;
  // The session of this device has ended; what is typed waits in this browser.
  if (got.response.status === 401) location.assign('/enter');
  throw new Refusal(
    got.response.status,
    problem?.detail ?? 'The shop gave no answer that can be read.',
    problem?.field ?? '',
    problem?.newest_revision ?? null,
    problem?.taken ?? '',
  );
}

/** The sentence to show for whatever was thrown. */
export function sentence(fault: unknown): string {
  return fault instanceof Error ? fault.message : String(fault);
}

const key = (id: string) => ({ params: { path: { key: id } } });

export const calls = {
  job: (id: string) => answer<JobView>(api.GET('/api/jobs/{key}', key(id))),
  jobs: (query: { archived?: boolean; today?: string; cursor?: string }) =>
    answer<Schemas['JobPage']>(api.GET('/api/jobs', { params: { query } })),
  addJob: (body: JobFile) => answer<JobView>(api.POST('/api/jobs', { body })),
  /** Sends a job file as it is; the shop reads it, and says what is wrong with it. */
  openJobFile: (text: string) =>
    answer<JobView>(
      api.POST('/api/jobs/file', {
        body: text as never,
        bodySerializer: (raw: unknown) => raw as string,
        headers: { 'Content-Type': 'application/json' },
      }),
    ),
  /** Outlives the page, so that the last stroke is saved when a window is closed. */
  changeJob: (id: string, body: Schemas['JobChange']) =>
    answer<JobView>(api.PUT('/api/jobs/{key}', { ...key(id), body, keepalive: true })),
  archive: (id: string) => answer<JobRow>(api.DELETE('/api/jobs/{key}', key(id))),
  restore: (id: string) => answer<JobRow>(api.POST('/api/jobs/{key}/restore', key(id))),
  workOut: (body: Schemas['WorkOutRequest'], signal: AbortSignal) =>
    answer<WorkOut>(api.POST('/api/work-out', { body, signal })),
  packing: (id: string) => answer<Packing>(api.GET('/api/jobs/{key}/packing', key(id))),
  ticks: (id: string) => answer<Tick[]>(api.GET('/api/jobs/{key}/packing/ticks', key(id))),
  tick: (id: string, ticks: Tick[]) =>
    answer<Tick[]>(api.POST('/api/jobs/{key}/packing/ticks', { ...key(id), body: { ticks } })),
  sending: (id: string) => answer<SendingView>(api.GET('/api/jobs/{key}/sending', key(id))),
  /** Outlives the page, as a job's last stroke does. */
  changeSending: (id: string, body: Schemas['SendingChange']) =>
    answer<SendingView>(api.PUT('/api/jobs/{key}/sending', { ...key(id), body, keepalive: true })),
  recipient: (id: string) => answer<RecipientView>(api.GET('/api/jobs/{key}/recipient', key(id))),
  changeRecipient: (id: string, body: Schemas['RecipientChange']) =>
    answer<RecipientView>(api.PUT('/api/jobs/{key}/recipient', { ...key(id), body, keepalive: true })),
  forgetRecipient: (id: string) => answer<RecipientView>(api.DELETE('/api/jobs/{key}/recipient', key(id))),
  partAddress: (text: string) =>
    answer<Schemas['AddressEntry']>(api.POST('/api/address/part', { body: { text } })),
  line: (text: string, signal: AbortSignal) =>
    answer<LineAnswer>(api.POST('/api/line', { body: { text }, signal })),
  begin: (body: Schemas['Beginning']) => answer<JobView>(api.POST('/api/jobs/begin', { body })),
  takeApart: (body: Schemas['StepTaken']) => answer<JobFile>(api.POST('/api/take-apart', { body })),
  kinds: () => answer<KindRow[]>(api.GET('/api/kinds')),
  kind: (code: string) => answer<KindView>(api.GET('/api/kinds/{code}', { params: { path: { code } } })),
  changeKind: (body: Schemas['KindChange']) => answer<KindView>(api.PUT('/api/kinds', { body })),
  archiveKind: async (code: string): Promise<void> => {
    const { error, response } = await api.DELETE('/api/kinds/{code}', { params: { path: { code } } });
    if (error) throw new Refusal(response.status, (error as Partial<Problem>).detail ?? UNREACHABLE);
  },
  restoreKind: (code: string) =>
    answer<KindView>(api.POST('/api/kinds/{code}/restore', { params: { path: { code } } })),
  jobRevisions: (id: string) => answer<RevisionRow[]>(api.GET('/api/jobs/{key}/revisions', key(id))),
  jobThen: (id: string, revision: number) =>
    answer<JobFile>(
      api.GET('/api/jobs/{key}/revisions/{revision}', { params: { path: { key: id, revision } } }),
    ),
  jobBack: (id: string, revision: number) =>
    answer<JobView>(
      api.POST('/api/jobs/{key}/revisions/{revision}', { params: { path: { key: id, revision } } }),
    ),
  shopRevisions: () => answer<RevisionRow[]>(api.GET('/api/shop/revisions')),
  shopThen: (revision: number) =>
    answer<ShopFile>(api.GET('/api/shop/revisions/{revision}', { params: { path: { revision } } })),
  shopBack: (revision: number) =>
    answer<ShopView>(api.POST('/api/shop/revisions/{revision}', { params: { path: { revision } } })),
  kindRevisions: (code: string) =>
    answer<RevisionRow[]>(api.GET('/api/kinds/{code}/revisions', { params: { path: { code } } })),
  kindThen: (code: string, revision: number) =>
    answer<KindFile>(
      api.GET('/api/kinds/{code}/revisions/{revision}', { params: { path: { code, revision } } }),
    ),
  kindBack: (code: string, revision: number) =>
    answer<KindView>(
      api.POST('/api/kinds/{code}/revisions/{revision}', { params: { path: { code, revision } } }),
    ),
  tariffThen: (carrier: string, revision: number) =>
    answer<Record<string, unknown>>(
      api.GET('/api/tariffs/{carrier}/versions/{revision}', { params: { path: { carrier, revision } } }),
    ),
  keepAsKind: (id: string, body: Schemas['NewKind']) =>
    answer<KindView>(api.POST('/api/jobs/{key}/kind', { ...key(id), body })),
  arrange: (body: Schemas['ArrangeRequest']) => answer<RunView>(api.POST('/api/arrange', { body })),
  stopRun: (run: string) => answer<RunView>(api.POST('/api/arrange/{key}/stop', key(run))),
  things: (body: Schemas['LookRequest'], signal: AbortSignal) =>
    answer<ThingShapes>(api.POST('/api/arrange/shapes', { body, signal })),
  packInto: (body: Schemas['LookRequest'], signal: AbortSignal) =>
    answer<Schemas['IntoView'][]>(api.POST('/api/arrange/boxes', { body, signal })),
  fill: (body: Schemas['LookRequest'], signal: AbortSignal) =>
    answer<FillView>(api.POST('/api/arrange/fill', { body, signal })),
  trim: (body: Schemas['TrimRequest']) =>
    answer<Schemas['SavingView'][]>(api.POST('/api/arrange/trim', { body })),
  plans: (body: TableRequest, signal: AbortSignal) =>
    answer<PlanTable>(api.POST('/api/plans', { body, signal })),
  plan: (body: Schemas['OnePlan'], signal: AbortSignal) =>
    answer<PlanUnfolded>(api.POST('/api/plans/unfolded', { body, signal })),
  choosePlan: (body: Schemas['OnePlan']) =>
    answer<NonNullable<JobFile['chosen']>>(api.POST('/api/plans/chosen', { body })),
  ladder: (body: Schemas['LadderRequest'], signal: AbortSignal) =>
    answer<RungView[]>(api.POST('/api/plans/ladder', { body, signal })),
  inParcels: (body: Schemas['ParcelsRequest'], signal: AbortSignal) =>
    answer<ParcelsView>(api.POST('/api/parcels', { body, signal })),
  compare: (body: Schemas['CompareRequest'], signal?: AbortSignal) =>
    answer<ComparedRows>(api.POST('/api/compare', signal ? { body, signal } : { body })),
  byHand: (body: Schemas['HandRequest'], signal?: AbortSignal) =>
    answer<ArrangedView>(api.POST('/api/arrange/hand', signal ? { body, signal } : { body })),
  shape: (part: PartEntry, signal: AbortSignal) =>
    answer<ShapeView>(api.POST('/api/shape', { body: { part }, signal })),
  /** Sends files as they are; each is answered for by itself. */
  sendFiles: (files: File[]) => {
    const form = new FormData();
    for (const file of files) form.append('files', file);
    return answer<TakenIn[]>(
      api.POST('/api/files', { body: form as never, bodySerializer: (raw: unknown) => raw as FormData }),
    );
  },
  /** A job in a ZIP with its photographs and meshes. */
  openBundle: (file: File) =>
    answer<JobView>(
      api.POST('/api/jobs/bundle', {
        body: file as never,
        bodySerializer: (raw: unknown) => raw as File,
        headers: { 'Content-Type': 'application/zip' },
      }),
    ),
  fold: (body: Schemas['FoldRequest'], signal: AbortSignal) =>
    answer<FoldView>(api.POST('/api/fold', { body, signal })),
  tariffs: () => answer<TariffRow[]>(api.GET('/api/tariffs')),
  access: () => answer<AccessView>(api.GET('/api/access')),
  accessCode: () => answer<Schemas['CodeView']>(api.POST('/api/access/code')),
  setPassphrase: (body: Schemas['Passphrase']) =>
    answer<AccessView>(api.PUT('/api/access/passphrase', { body })),
  endSession: (id: string) =>
    answer<AccessView>(
      api.DELETE('/api/access/sessions/{session_id}', { params: { path: { session_id: id } } }),
    ),
  tariffForms: () => answer<TariffFormRow[]>(api.GET('/api/tariffs/-/forms')),
  beginTariff: (body: Schemas['Begun']) => answer<TariffRow>(api.POST('/api/tariffs/-/begin', { body })),
  ownPrices: (carrier: string, service: number, body: Schemas['OwnPrices']) =>
    answer<TariffRow>(
      api.PUT('/api/tariffs/{carrier}/services/{service}/own', {
        params: { path: { carrier, service } },
        body,
      }),
    ),
  startingShop: (units: 'in' | 'cm') =>
    answer<ShopFile>(api.GET('/api/shop/starting', { params: { query: { units } } })),
  atHand: (body: Schemas['SettingUp']) => answer<ShopFile>(api.POST('/api/shop/at-hand', { body })),
  readTariff: (text: string) =>
    answer<TariffRow>(
      api.POST('/api/tariffs/file', {
        body: text as never,
        bodySerializer: (raw: unknown) => raw as string,
        headers: { 'Content-Type': 'application/json' },
      }),
    ),
  archiveTariff: (carrier: string) =>
    answer<TariffRow>(api.DELETE('/api/tariffs/{carrier}', { params: { path: { carrier } } })),
  restoreTariff: (carrier: string) =>
    answer<TariffRow>(api.POST('/api/tariffs/{carrier}/restore', { params: { path: { carrier } } })),
  tariffVersion: (carrier: string, revision: number) =>
    answer<TariffRow>(
      api.POST('/api/tariffs/{carrier}/versions/{revision}', { params: { path: { carrier, revision } } }),
    ),
  tryTariff: (carrier: string, body: Schemas['Trial']) =>
    answer<LineAnswer>(api.POST('/api/tariffs/{carrier}/try', { params: { path: { carrier } }, body })),
  tariff: (carrier: string) =>
    answer<TariffWhole>(api.GET('/api/tariffs/{carrier}', { params: { path: { carrier } } })),
  beginPractice: () => answer<JobView>(api.POST('/api/practice')),
  practiceSteps: (body: Schemas['PracticeRequest'], signal: AbortSignal) =>
    answer<Schemas['PracticeView']>(api.POST('/api/practice/steps', { body, signal })),
  tryMadeUp: () => answer<WhichShop>(api.POST('/api/made-up')),
  leaveMadeUp: () => answer<WhichShop>(api.DELETE('/api/made-up')),
  copies: () => answer<CopyRow[]>(api.GET('/api/keeping/copies')),
  copyChanges: (name: string) =>
    answer<CopyChanges>(api.GET('/api/keeping/copies/{name}', { params: { path: { name } } })),
  restoreCopy: (name: string) =>
    answer<CopyRow>(api.POST('/api/keeping/copies/{name}/restore', { params: { path: { name } } })),
  /** A whole shop in a ZIP, laid beside this one as a copy. */
  importShop: (file: File) =>
    answer<CopyRow>(
      api.POST('/api/keeping/archive', {
        body: file as never,
        bodySerializer: (raw: unknown) => raw as File,
        headers: { 'Content-Type': 'application/zip' },
      }),
    ),
  fuel: () => answer<FuelRow[]>(api.GET('/api/tariffs/-/fuel')),
  changeFuel: (carrier: string, body: Schemas['FuelChange']) =>
    answer<TariffRow>(api.PUT('/api/tariffs/{carrier}/fuel', { params: { path: { carrier } }, body })),
  comingPrices: (carrier: string, body: Schemas['Coming']) =>
    answer<TariffRow>(api.POST('/api/tariffs/{carrier}/coming', { params: { path: { carrier } }, body })),
  compareTariffs: (carrier: string, body: Schemas['TwoSides']) =>
    answer<ComparedTariffs>(
      api.POST('/api/tariffs/{carrier}/compare', { params: { path: { carrier } }, body }),
    ),
  tariffForm: () => answer<object>(api.GET('/api/tariffs/-/form')),
  changeTariff: (carrier: string, revision: number, tariff: object) =>
    answer<TariffRow>(
      api.PUT('/api/tariffs/{carrier}', {
        params: { path: { carrier } },
        body: { revision, tariff: tariff as Record<string, never> },
      }),
    ),
  lookOverTariff: (tariff: object, signal: AbortSignal) =>
    answer<LookedOver>(api.POST('/api/tariffs/look-over', { body: tariff as Record<string, never>, signal })),
  readTable: (carrier: string, service: number, charge: number, text: string) =>
    answer<TariffRow>(
      api.PUT('/api/tariffs/{carrier}/services/{service}/charges/{charge}/table', {
        params: { path: { carrier, service, charge } },
        body: text as never,
        bodySerializer: (raw: unknown) => raw as string,
        headers: { 'Content-Type': 'text/csv' },
      }),
    ),
  ask: (body: Schemas['AskRequest'], signal: AbortSignal) =>
    answer<LiveQuotes[]>(api.POST('/api/ask', { body, signal })),
  buyLabel: (key: string, body: LabelRequest) =>
    answer<JobView>(api.POST('/api/jobs/{key}/label', { params: { path: { key } }, body })),
  label: (key: string) =>
    answer<LabelView | null>(api.GET('/api/jobs/{key}/label', { params: { path: { key } } })),
  voidLabel: (key: string) =>
    answer<JobView>(api.DELETE('/api/jobs/{key}/label', { params: { path: { key } } })),
  askAboutLabel: (key: string) =>
    answer<JobView>(api.POST('/api/jobs/{key}/label/ask-again', { params: { path: { key } } })),
  print: (key: string, what: Schemas['ToPrint']['what']) =>
    answer<Schemas['Printed']>(
      api.POST('/api/jobs/{key}/print', { params: { path: { key } }, body: { what } }),
    ),
  tracking: (key: string) =>
    answer<TrackingSaid>(api.GET('/api/jobs/{key}/tracking', { params: { path: { key } } })),
  steps: (body: Schemas['StepsRequest'], signal: AbortSignal) =>
    answer<StepsView>(api.POST('/api/steps', { body, signal })),
  cutting: (query: { jobs?: string[]; tool: CuttingView['tool']; lay_out?: boolean }, signal: AbortSignal) =>
    answer<CuttingView>(api.GET('/api/cutting', { params: { query }, signal })),
  cut: (body: Schemas['Done']) => answer<ShopView>(api.POST('/api/cutting/done', { body })),
  uncut: (body: Schemas['Undone']) => answer<ShopView>(api.POST('/api/cutting/undone', { body })),
  shop: () => answer<ShopView>(api.GET('/api/shop')),
  readDesign: (body: Schemas['DrawingSent']) =>
    answer<Schemas['DesignRead']>(api.POST('/api/shop/designs/read', { body })),
  changeShop: (body: Schemas['ShopChange']) => answer<ShopView>(api.PUT('/api/shop', { body })),
};
