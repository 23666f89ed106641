# frozen_string_literal: true

module Server
  # Brings the demo production in, the way a person would.
  class Demo
    FOLDER = File.join(ROOT, "demo")
    MEDIA = File.join(FOLDER, "media")
    # Beside television: an HDR target, and two smaller ones that are made of it.
    TARGETS = [
      {"id" => "hdr", "name" => "HDR 1000", "encoding" => "rec2100-pq", "rendering" => "hdr-video-1000nit-15nit-p3lim-1.1"},
      {"id" => "bt709-100", **Mordant::Rendition::Aim::LISTED.find { |one| one["name"] == "BT.709 100" }},
      {"id" => "p3-600", **Mordant::Rendition::Aim::LISTED.find { |one| one["name"] == "P3-D65 600" }}
    ].freeze
    NIGHT = /night/
    # Stand-ins that bin/start starts; see Supervisor::Processes.
    SCREENS = [{"name" => "Grading desk", "kind" => "control", "screen" => "127.0.0.1:7311", "probe" => "127.0.0.1:7312"},
      {"name" => "Review wall", "kind" => "reference", "screen" => "127.0.0.1:7313", "probe" => "127.0.0.1:7314"}].freeze

    # @return [Project, nil] nil when there is one already
    def self.load
      manifest = JSON.parse(File.read(File.join(FOLDER, "manifest.json")))
      new(manifest).load unless Project.exists?(name: manifest["title"])
    end

    def initialize(manifest)
      @manifest = manifest
    end

    # @return [Project]
    def load
      Record.transaction do
        width, height = @manifest["raster"]
        @project = Project.create!(name: @manifest["title"], width:, height:, rate_numerator: @manifest["rate"], input_rules: rules)
        @project.update!(targets: @project.targets + TARGETS)
        SCREENS.each { |screen| Screen.made(screen) unless Screen.exists?(name: screen["name"]) }
        clips = take_in
        cut = build(clips, "Cut 1")
        Finished.new(build(clips, "Finished")).grade
        Errand.place(cut, "measure", {shots: cut.shots.where("scene ~ ?", NIGHT.source).pluck(:id)})
      end
      @project
    end

    private

    def take_in
      root = MediaRoot.configure(MEDIA, label: "demo footage")
      taking = Intake::Taking.new(@project, root)
      @manifest["shots"].to_h { |shot| [shot["shot"], assigned(taking.call(shot["clip"]))] }
    end

    def assigned(clip)
      clip.ready? ? clip : raise(Mordant::MediaError.new(clip.path, clip.reason))
    end

    # Cameras whose files do not say what they wrote.
    def rules
      @manifest["cameras"].reject { |_, about| about["declares"] }.map { |camera, about| {"field" => "camera", "pattern" => camera, "encoding" => about["encoding"]} }
    end

    def build(clips, name)
      cut = Cut.create_named!(@project, name)
      scenes = @manifest["scenes"].to_h { |scene| [scene["number"], scene["name"]] }
      record = 0
      cut.add(@manifest["shots"].each_with_index.map do |shot, position|
        {clip: clips.fetch(shot["shot"]), name: shot["shot"], scene: scenes.fetch(shot["scene"]), position:, source_in: shot["in"], record_in: record,
         length: shot["for"], dissolve: shot["dissolve"]}.tap { record += shot["for"] }
      end)
      Cut.find(cut.id)
    end
  end
end
