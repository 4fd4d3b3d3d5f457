import type { CheckList, FleetNotice, HouseRules, RulePack, VehicleType } from '@decurio/core';
import type { LibraryEntry, LibraryKind } from '@decurio/contract';
import { CheckListForm, NEW_LIST } from './checks/check-list-form.js';
import { HouseRulesForm, NEW_RULES } from './house/house-rules-form.js';
import { NEW_NOTICE, NoticeForm } from './notices/notice-form.js';
import { NEW_PACK } from './rules/new-pack.js';
import { RulePackForm } from './rules/rule-pack-form.js';
import { NEW_TYPE } from './types/new-type.js';
import { TypeForm } from './types/type-form.js';

/** The form of a document, or of a new one of a kind. */
export function EditDocument({
  entry,
  kind = entry?.kind,
}: {
  readonly entry?: LibraryEntry;
  readonly kind?: LibraryKind | undefined;
}) {
  const isNew = entry === undefined;
  switch (kind) {
    case 'vehicleType':
      return <TypeForm start={(entry?.document as VehicleType | undefined) ?? NEW_TYPE} isNew={isNew} />;
    case 'rulePack':
      return <RulePackForm start={(entry?.document as RulePack | undefined) ?? NEW_PACK} isNew={isNew} />;
    case 'houseRules':
      return <HouseRulesForm start={(entry?.document as HouseRules | undefined) ?? NEW_RULES} isNew={isNew} />;
    case 'notice':
      return <NoticeForm start={(entry?.document as FleetNotice | undefined) ?? NEW_NOTICE} isNew={isNew} />;
    case 'checkList':
      return <CheckListForm start={(entry?.document as CheckList | undefined) ?? NEW_LIST} isNew={isNew} />;
    default:
      return null;
  }
}
