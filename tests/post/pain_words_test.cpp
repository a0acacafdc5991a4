// SPDX-License-Identifier: GPL-3.0-or-later
// Pain as families write of it: forty wordings and forty harmless ones in English and in Spanish, made up for
// this test.
#include "post/pain_words.h"

#include <gtest/gtest.h>

#include <vector>

namespace jg {
namespace {

const std::vector<const char*> kPainEnglish = {
    "His elbow hurts.",
    "No, it hurts!",
    "No it hurts when he throws",
    "He can't throw without pain.",
    "not throwing, sore elbow",
    "no velo, shoulder sore",
    "It popped and it burns.",
    "I strained my UCL",
    "both knees hurt",
    "her hips are sore",
    "My arm is killing me after the third inning.",
    "There is a click in the shoulder each time.",
    "The elbow locks sometimes.",
    "His back has been bothering him since Sunday.",
    "Felt a pop in my elbow on the last pitch.",
    "Forearm is really tight today",
    "He is a bit stiff, nothing serious.",
    "Numbness in the ring finger.",
    "fingers tingling",
    "The shoulder's swollen",
    "She sprained her ankle on Tuesday and still limps.",
    "no fever but his shoulder aches",
    "He didn't sleep because of his elbow pain.",
    "Elbow is barking again",
    "can't straighten his arm all the way",
    "I can\u2019t lift my arm above my shoulder",
    "Some discomfort in the back of the shoulder.",
    "Not much to say, his arm feels dead.",
    "He pulled a hamstring.",
    "Twinges on the inside of the elbow",
    "Arm's sore.\nHere are the films.",
    "Does it matter that his elbow is tender?",
    "He says nothing, but I can see that it hurts.",
    "Never complained before. Now the shoulder throbs.",
    "Doc says inflammation, cleared for light throwing",
    "something in the elbow snapped",
    "Injured since May",
    "His wrist feels weird after curveballs",
    "We stopped after ten because of cramps.",
    "SHOULDER PAIN - please look",
};

const std::vector<const char*> kHarmlessEnglish = {
    "He has no pain.",
    "No pain or soreness.",
    "No pain, soreness or swelling.",
    "His arm doesn't hurt.",
    "She throws without pain.",
    "Pain-free since spring!",
    "He is pain free and happy.",
    "Nothing hurts.",
    "never had any elbow pain",
    "We have not noticed any discomfort.",
    "Is his stride too long?",
    "He throws two bullpens a week.",
    "Can you look at the arm action?",
    "He feels good and strong.",
    "Elbow feels great.",
    "Shoulder is fine.",
    "Here are three pitches from the side.",
    "His fastball pops the glove!",
    "He was locked in on Saturday.",
    "Click on the link for the film.",
    "Sorry to bother you so late.",
    "He burned it past everybody.",
    "It was a tight game.",
    "He pulled the ball twice.",
    "What is wrong with his curveball?",
    "She is tired of losing.",
    "The umpire was weird.",
    "He broke his personal best.",
    "Why does he fly open?",
    "Front side opens early, I think.",
    "He is 12 and weighs 41 kg.",
    "He wants to throw harder.",
    "The camera stood behind first base.",
    "He doesn't feel pain, stiffness or anything else.",
    "All good here, no complaints.",
    "He has a sharp slider.",
    "The net was torn, so we used the fence.",
    "He played shortstop today.",
    "He missed a week because of exams.",
    "Thanks for the last letter, the drills helped.",
};

const std::vector<const char*> kPainSpanish = {
    "Le duele el codo.",
    "me duele la rodilla",
    "Me duelen los hombros",
    "No, le duele mucho!",
    "Tiene dolor en el hombro.",
    "no puede lanzar sin dolor",
    "Sin velocidad, le duele el hombro",
    "Se lastim\u00f3 el tobillo.",
    "Tiene una lesi\u00f3n en el codo",
    "Siente molestias en el antebrazo",
    "El brazo le molesta desde el domingo.",
    "El codo est\u00e1 hinchado",
    "Le truena el hombro",
    "Sinti\u00f3 un tir\u00f3n en la espalda.",
    "Se torci\u00f3 la mu\u00f1eca",
    "Tiene calambres en la pantorrilla.",
    "Se le traba el codo a veces",
    "hormigueo en los dedos",
    "Los dedos se le quedan dormidos",
    "El hombro est\u00e1 inflamado.",
    "Desde ayer tiene el brazo muy cargado.",
    "No lanza, codo adolorido",
    "Dice que no, pero le duele.",
    "Un esguince en la rodilla",
    "No puede estirar el brazo.",
    "no puede levantar el codo",
    "Siente ardor en el hombro",
    "Siente un pinchazo al soltar la bola",
    "El doctor habla de tendinitis.",
    "Le arde el codo",
    "Se desgarr\u00f3 el muslo",
    "Dolores en la cadera cuando corre",
    "\u00bfImporta que le duela el codo?",
    "Le doli\u00f3 el brazo despu\u00e9s del juego.",
    "Est\u00e1 lesionado desde mayo",
    "El codo le hace clic",
    "Tiene la espalda r\u00edgida.",
    "Codo resentido, poca fuerza",
    "le duele todo el brazo",
    "Contractura en el hombro",
};

const std::vector<const char*> kHarmlessSpanish = {
    "No le duele nada.",
    "No tiene dolor.",
    "Sin dolor ni molestias.",
    "No siente ning\u00fan dolor en el brazo.",
    "Lanza sin dolor.",
    "Nunca le ha dolido el codo.",
    "No tiene ninguna molestia.",
    "\u00bfEs muy largo el paso?",
    "Lanza dos veces por semana.",
    "\u00bfPuede ver la acci\u00f3n del brazo?",
    "Se siente bien y fuerte.",
    "El codo est\u00e1 bien.",
    "Aqu\u00ed van tres lanzamientos de lado.",
    "Gracias por la \u00faltima carta.",
    "Quiere lanzar m\u00e1s fuerte.",
    "Tiene 12 a\u00f1os.",
    "La c\u00e1mara estaba detr\u00e1s de primera base.",
    "Fue un juego muy bueno.",
    "\u00bfPor qu\u00e9 abre tan pronto?",
    "El hombro est\u00e1 muy bien.",
    "Jug\u00f3 de campocorto.",
    "Falt\u00f3 una semana por los ex\u00e1menes.",
    "Los ejercicios le ayudaron mucho.",
    "Haga clic en el enlace.",
    "Estamos cansados de perder.",
    "El \u00e1rbitro fue raro.",
    "No hay molestias, todo bien.",
    "Est\u00e1 contento con su recta.",
    "Mide un metro cincuenta.",
    "Ya no falta nada.",
    "Mueve bien la cadera.",
    "La rodilla de adelante se dobla poco.",
    "El codo sube a tiempo.",
    "Levanta bien la pierna.",
    "Tiene buena fuerza.",
    "Saludos desde la escuela.",
    "No entendi\u00f3 el ejercicio de la toalla.",
    "\u00bfCu\u00e1ntos lanzamientos por semana?",
    "Su hermano juega tambi\u00e9n.",
    "La red estaba rota.",
};

int heard(const std::vector<const char*>& all, bool wanted) {
    int count = 0;
    for (const char* text : all) {
        const bool found = !painIn(text).empty();
        count += found;
        if (wanted) {
            EXPECT_TRUE(found) << text;
        }
        if (!wanted && found) std::printf("falsely heard: %s\n", text);
    }
    return count;
}

TEST(PainWords, FortyWordingsOfEachLanguageAreHeard) {
    ASSERT_EQ(kPainEnglish.size(), 40U);
    ASSERT_EQ(kPainSpanish.size(), 40U);
    EXPECT_EQ(heard(kPainEnglish, true), 40);
    EXPECT_EQ(heard(kPainSpanish, true), 40);
}

TEST(PainWords, OfFortyHarmlessOnesAtMostTenAreAskedAbout) {
    ASSERT_EQ(kHarmlessEnglish.size(), 40U);
    ASSERT_EQ(kHarmlessSpanish.size(), 40U);
    EXPECT_LE(heard(kHarmlessEnglish, false), 10);
    EXPECT_LE(heard(kHarmlessSpanish, false), 10);
}

TEST(PainWords, ADenialReachesItsOwnPartOnly) {
    EXPECT_FALSE(painIn("No fastball yet; elbow sore").empty());
    EXPECT_TRUE(painIn("He has no elbow pain, no soreness and no swelling").empty());
    EXPECT_FALSE(painIn("No pain in the elbow, but the shoulder hurts").empty());
    EXPECT_FALSE(painIn("He says he has no pain. I think his elbow hurts.").empty());
    EXPECT_EQ(painIn("All fine. His elbow hurts! Thanks."), "His elbow hurts!");
}

} // namespace
} // namespace jg
