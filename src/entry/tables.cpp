// The tables of commands. A file of its own: a test links other tables with a bench more.
#include "entry/commands.hpp"

namespace gorvet::entry {

extern const CommandTable tape_commands;
extern const CommandTable scan_commands;
extern const CommandTable sit_commands;
extern const CommandTable stretch_commands;
extern const CommandTable drive_commands;
extern const CommandTable make_commands;
extern const CommandTable work_commands;
extern const CommandTable plan_commands;
extern const CommandTable build_commands;

const std::vector<const CommandTable*>& commandTables() {
    static const std::vector<const CommandTable*> tables{&tape_commands,    &scan_commands,  &sit_commands,
                                                         &stretch_commands, &drive_commands, &make_commands,
                                                         &work_commands,    &plan_commands,  &build_commands};
    return tables;
}

} // namespace gorvet::entry
