#include "desk/view3d/scene_pane.hpp"

#include "desk/view3d/scene_view.hpp"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QOffscreenSurface>
#include <QOpenGLContext>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QVBoxLayout>
#include <cmath>

namespace gorvet::desk {

namespace {

bool openGlWorks() {
    if (qEnvironmentVariableIsSet("GORVET_NO_OPENGL")) return false;
    QSurfaceFormat format;
    format.setVersion(3, 3);
    format.setProfile(QSurfaceFormat::CoreProfile);
    QOpenGLContext context;
    context.setFormat(format);
    if (!context.create()) return false;
    QOffscreenSurface surface;
    surface.setFormat(context.format());
    surface.create();
    if (!surface.isValid() || !context.makeCurrent(&surface)) return false;
    const bool good = context.format().version() >= std::pair(3, 3);
    context.doneCurrent();
    return good;
}

} // namespace

ScenePane::ScenePane(QWidget* parent) : QWidget(parent) {
    setObjectName("scenePane");
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    column->addLayout(row);
    words_ = new QLabel;
    words_->setObjectName("sceneWords");
    words_->setProperty("second", true);
    words_->setWordWrap(true);
    words_->hide();
    column->addWidget(words_);
    asking_ = new QWidget;
    asking_->setObjectName("sceneAsking");
    asking_->hide();
    column->addWidget(asking_);
    if (!openGlWorks()) {
        auto* missing = new QLabel(tr("This system shows no 3-D pictures (OpenGL 3.3 is missing). All figures, findings and the cut map work without them."));
        missing->setObjectName("sceneMissing");
        missing->setAlignment(Qt::AlignCenter);
        missing->setWordWrap(true);
        column->addWidget(missing, 1);
        return;
    }
    view_ = new SceneView;
    column->addWidget(view_, 1);
    for (const auto& [label, name, from] : {std::tuple{tr("from the left"), "view_left", ViewFrom::Left}, std::tuple{tr("from above"), "view_above", ViewFrom::Above},
                                            std::tuple{tr("from behind"), "view_behind", ViewFrom::Behind},
                                            std::tuple{tr("from underneath"), "view_underneath", ViewFrom::Underneath},
                                            std::tuple{tr("from the corner"), "view_corner", ViewFrom::Corner}}) {
        auto* button = new QPushButton(label);
        button->setObjectName(name);
        button->setMinimumHeight(40);
        button->setFocusPolicy(Qt::TabFocus);
        connect(button, &QPushButton::clicked, this, [this, v = from] { view_->lookFrom(v); });
        row->addWidget(button);
    }
    row->addSpacing(12);
    for (const auto& [label, name, layer] : {std::tuple{tr("body"), "layer_body", SceneView::Body}, std::tuple{tr("chassis"), "layer_chassis", SceneView::Chassis}}) {
        auto* box = new QCheckBox(label);
        box->setObjectName(name);
        box->setChecked(true);
        box->setMinimumHeight(40);
        connect(box, &QCheckBox::toggled, this, [this, l = layer](bool on) { view_->setShown(l, on); });
        row->addWidget(box);
    }
    row->addSpacing(12);
    section_on_ = new QCheckBox(tr("cut open at"));
    section_on_->setObjectName("sectionOn");
    section_on_->setMinimumHeight(40);
    section_ = new QSlider(Qt::Horizontal);
    section_->setObjectName("sectionStation");
    section_->setAccessibleName(tr("station of the section"));
    section_->setMinimumWidth(120);
    section_->setRange(-1000, 4000);
    section_->setValue(1300);
    section_->setPageStep(50);
    station_ = new QLabel;
    station_->setMinimumWidth(56);
    row->addWidget(section_on_);
    row->addWidget(section_, 1);
    row->addWidget(station_);
    const auto set = [this] {
        station_->setText(section_on_->isChecked() ? QString::number(section_->value()) : QString());
        view_->setSection(section_on_->isChecked() ? std::optional<double>(section_->value()) : std::nullopt);
    };
    connect(section_on_, &QCheckBox::toggled, this, set);
    connect(section_, &QSlider::valueChanged, this, [this, set] {
        if (section_on_->isChecked()) set();
        else section_on_->setChecked(true);
    });
}

void ScenePane::setTheme(const Theme& theme) {
    if (view_) view_->setTheme(theme);
}

void ScenePane::say(const QString& text) {
    words_->setText(text);
    words_->setVisible(!text.isEmpty());
}

void ScenePane::ask(const QString& label, const QStringList& buttons) {
    delete asking_->layout();
    qDeleteAll(asking_->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly));
    asking_->setVisible(!label.isEmpty());
    if (label.isEmpty()) return;
    auto* row = new QHBoxLayout(asking_);
    row->setContentsMargins(0, 0, 0, 0);
    auto* words = new QLabel(label);
    words->setObjectName("sceneQuestion");
    words->setWordWrap(true);
    row->addWidget(words, 1);
    for (int i = 0; i < buttons.size(); ++i) {
        auto* button = new QPushButton(buttons[i]);
        button->setObjectName(QString("sceneAnswer%1").arg(i));
        button->setMinimumHeight(40);
        button->setFocusPolicy(Qt::TabFocus);
        connect(button, &QPushButton::clicked, this, [this, i] { emit answered(i); });
        row->addWidget(button);
    }
}

void ScenePane::refreshRange() {
    if (!view_) return;
    if (const auto box = view_->box()) {
        const QSignalBlocker quiet(section_);
        section_->setRange(static_cast<int>(std::floor(box->first[0])), static_cast<int>(std::ceil(box->second[0])));
    }
}

} // namespace gorvet::desk
