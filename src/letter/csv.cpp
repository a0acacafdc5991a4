// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/csv.h"

#include "base/number.h"
#include "words/words.h"

#include <string_view>

namespace jg {

namespace {

std::string written(double v) {
    return fixed(v, 3);
}

} // namespace

namespace {

/// True for what a spreadsheet would work out instead of show; a number is one.
bool isFormula(std::string_view field) {
    const auto first = field.find_first_not_of(' ');
    if (first == field.npos) return false;
    const std::string_view rest = field.substr(first);
    // Wide forms of the four signs are taken for them by some.
    for (const char* wide : {"\uFF1D", "\uFF0B", "\uFF0D", "\uFF20"})
        if (rest.starts_with(wide)) return true;
    return std::string_view("=+-@\t\r|").find(rest.front()) != std::string_view::npos &&
           !parseNumber(std::string(rest));
}

} // namespace

std::string csvField(const std::string& field) {
    if (isFormula(field)) return csvField("'" + field);
    if (field.find_first_of(",\"\r\n") == std::string::npos) return field;
    std::string out = "\"";
    for (const char c : field) out += c == '"' ? std::string("\"\"") : std::string(1, c);
    return out + "\"";
}

std::string measuresAsCsv(const Playbook& playbook, const Assessment& assessment) {
    std::string out = "id,name,value,unit,sd,low95,high95,state,target,verdict,pitches,mean,spread\r\n";
    for (const MeasureRow& row : assessment.measures) {
        const MeasureValue& v = row.value;
        const std::string name = playbook.nameOfFinding(row.id);
        out += row.id + "," + csvField(name) + ",";
        out += v.value ? written(*v.value) + "," + v.unit + "," + written(v.sd) + "," + written(v.low95) +
                             "," + written(v.high95)
                       : "," + v.unit + ",,,";
        out += "," + std::string(idOf(v.state)) + "," + csvField(english()(wordsOf(row.target))) + ",";
        out += row.judgement.verdict ? std::string(idOf(*row.judgement.verdict))
                                     : std::string(idOf(row.judgement.state));
        out += row.spread ? "," + std::to_string(row.spread->pitches) + "," + written(row.spread->mean) +
                                "," + written(row.spread->sd)
                          : ",,,";
        out += "\r\n";
    }
    return out;
}

} // namespace jg
