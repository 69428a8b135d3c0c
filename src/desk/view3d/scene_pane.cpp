#include "desk/view3d/scene_pane.hpp"

#include "desk/view3d/scene_view.hpp"

#include <QCheckBox>
#include <QGuiApplication>
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
    missing_ = new QLabel(tr(
        "This system shows no 3-D pictures (OpenGL 3.3 is missing). All figures, findings and the cut map work without them."));
    missing_->setObjectName("sceneMissing");
    missing_->setAlignment(Qt::AlignCenter);
    missing_->setWordWrap(true);
    column->addWidget(missing_, 1);
    if (qEnvironmentVariableIsSet("GORVET_NO_OPENGL") || QGuiApplication::platformName() == "offscreen") return;
    missing_->hide();
    view_ = new SceneView;
    column->addWidget(view_, 1);
    for (const auto& [label, name, from] : {std::tuple{tr("from the left"), "view_left", ViewFrom::Left},
                                            std::tuple{tr("from above"), "view_above", ViewFrom::Above},
                                            std::tuple{tr("from behind"), "view_behind", ViewFrom::Behind},
                                            std::tuple{tr("from underneath"), "view_underneath", ViewFrom::Underneath},
                                            std::tuple{tr("from the corner"), "view_corner", ViewFrom::Corner}}) {
        auto* button = new QPushButton(label);
        button->setObjectName(name);
        button->setMinimumHeight(40);
        button->setFocusPolicy(Qt::TabFocus);
        connect(button, &QPushButton::clicked, this, [this, v = from] {
            if (view_) view_->lookFrom(v);
        });
        row->addWidget(button);
    }
    second_row_ = new QWidget;
    auto* more = new QHBoxLayout(second_row_);
    more->setContentsMargins(0, 0, 0, 0);
    more->setSpacing(6);
    first_row_ = row;
    column_ = column;
    for (const auto& [label, name, layer] :
         {std::tuple{tr("body"), "layer_body", SceneView::Body}, std::tuple{tr("chassis"), "layer_chassis", SceneView::Chassis},
          std::tuple{tr("new steel"), "layer_new_steel", SceneView::NewSteel},
          std::tuple{tr("to remove"), "layer_to_remove", SceneView::ToRemove}}) {
        auto* box = new QCheckBox(label);
        box->setObjectName(name);
        box->setChecked(true);
        box->setMinimumHeight(40);
        connect(box, &QCheckBox::toggled, this, [this, l = layer](bool on) {
            if (view_) view_->setShown(l, on);
        });
        more->addWidget(box);
    }
    more->addSpacing(12);
    section_on_ = new QCheckBox(tr("cut open at"));
    section_on_->setObjectName("sectionOn");
    section_on_->setMinimumHeight(40);
    section_ = new QSlider(Qt::Horizontal);
    section_->setObjectName("sectionStation");
    section_->setAccessibleName(tr("station of the section"));
    section_->setMinimumWidth(70);
    section_->setRange(-1000, 4000);
    section_->setValue(1300);
    section_->setPageStep(50);
    station_ = new QLabel;
    station_->setMinimumWidth(44);
    more->addWidget(section_on_);
    more->addWidget(section_, 1);
    more->addWidget(station_);
    row->addSpacing(12);
    row->addWidget(second_row_, 1);
    const auto set = [this] {
        station_->setText(section_on_->isChecked() ? QString::number(section_->value()) : QString());
        if (view_) view_->setSection(section_on_->isChecked() ? std::optional<double>(section_->value()) : std::nullopt);
    };
    connect(section_on_, &QCheckBox::toggled, this, set);
    connect(section_, &QSlider::valueChanged, this, [this, set] {
        if (section_on_->isChecked())
            set();
        else
            section_on_->setChecked(true);
    });
}

void ScenePane::showEvent(QShowEvent* event) {
    // asked when it is first wanted, not when the program starts
    if (view_ && !asked_ && !openGlWorks()) {
        missing_->show();
        view_->hide();
        view_->deleteLater();
        view_ = nullptr;
        for (QWidget* w : findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly))
            if (w != missing_ && w != words_) w->setEnabled(false);
    }
    asked_ = true;
    QWidget::showEvent(event);
}

void ScenePane::setTheme(const Theme& theme) {
    if (!view_) return;
    view_->setTheme(theme);
    arrange();
}

/// Layers and section beside the views where there is room, else below them.
void ScenePane::arrange() {
    if (!second_row_) return;
    first_row_->removeWidget(second_row_);
    column_->removeWidget(second_row_);
    const int views = first_row_->sizeHint().width();
    if (views + second_row_->sizeHint().width() > width())
        column_->insertWidget(1, second_row_);
    else
        first_row_->addWidget(second_row_, 1);
}

void ScenePane::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    arrange();
}

QSize ScenePane::minimumSizeHint() const {
    // as wide as the views alone
    int wide = 0;
    for (int i = 0; first_row_ && i < first_row_->count(); ++i)
        if (const QWidget* w = first_row_->itemAt(i)->widget(); w && w != second_row_)
            wide += w->minimumSizeHint().width() + first_row_->spacing();
    return {wide, QWidget::minimumSizeHint().height()};
}

void ScenePane::say(const QString& text) {
    words_->setText(text);
    words_->setVisible(!text.isEmpty());
}

void ScenePane::refreshRange() {
    if (!view_) return;
    if (const auto box = view_->box()) {
        const QSignalBlocker quiet(section_);
        section_->setRange(static_cast<int>(std::floor(box->first[0])), static_cast<int>(std::ceil(box->second[0])));
    }
}

} // namespace gorvet::desk
