import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react';
import type { ReactNode } from 'react';
import { t } from '../../texts/texts.js';

const TABS = [t('sifting.reasons'), t('sifting.find'), t('sifting.phrases')];

/** The right-hand pane: the reasons of the chosen candidate, search, and key phrases. */
export function SidePane({
  shown,
  onShow,
  reasons,
  find,
  phrases,
}: {
  shown: number;
  onShow: (tab: number) => void;
  reasons: ReactNode;
  find: ReactNode;
  phrases: ReactNode;
}): ReactNode {
  return (
    <TabGroup
      as="aside"
      aria-label={t('sifting.about-the-recording')}
      selectedIndex={shown}
      onChange={onShow}
      className="flex min-h-0 flex-col border-rule md:border-l"
    >
      <TabList className="flex flex-none gap-4 border-b border-rule px-[18px]">
        {TABS.map((name) => (
          <Tab
            key={name}
            className="-mb-px border-b-2 border-transparent py-[7px] text-[12.5px] text-soft data-selected:border-madder data-selected:font-semibold data-selected:text-ink"
          >
            {name}
          </Tab>
        ))}
      </TabList>
      <TabPanels className="min-h-0 flex-1 overflow-y-auto">
        <TabPanel className="h-full">{reasons}</TabPanel>
        <TabPanel className="px-[18px] py-[14px]">{find}</TabPanel>
        <TabPanel className="px-[18px] py-[14px]">{phrases}</TabPanel>
      </TabPanels>
    </TabGroup>
  );
}
