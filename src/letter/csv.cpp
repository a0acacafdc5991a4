#include "letter/csv.h"

#include "base/number.h"
#include "words/words.h"

namespace jg {

namespace {

std::string written(double v) {
    return fixed(v, 3);
}

} // namespace

std::string csvField(const std::string& field) {
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
