# frozen_string_literal: true

require "uri"

module Server
  # A cut list that names what an order wrote instead of the sources: per shot the files of
  # one format, or the one file of the whole cut.
  class ReturnedList
    # @param order [Order]
    # @param format [String, nil] of the outputs that are named; nil: the first one's
    # @raise [Mordant::ParameterError] of an order that has no such output
    def initialize(order, format = nil)
      @order, @cut = order, order.cut
      @outputs = order.outputs.select { |output| output.kind == (format || order.outputs.first&.kind) && output.status != "cancelled" }
      raise Mordant::ParameterError.new(path: "format", expected: order.outputs.map(&:kind).uniq.join(", "), found: format) if @outputs.empty?
    end

    # @return [String] OpenTimelineIO
    def otio
      items = shots.map do |shot, output, stretch|
        in_file = output.shot_id ? shot.source_in - source_start(stretch) : shot.record_in
        start = stretch.start.frames
        Mordant::Cut::OpenTimeline::Item.new(name: shot.name, url: url(output), start: start + in_file, length: shot.length, available: [start, stretch.length],
          dissolve: output.shot_id ? shot.dissolve : 0, metadata: {"mordant" => {"source" => File.basename(shot.clip.path), "reel" => shot.clip.reel}})
      end
      Mordant::Cut::OpenTimeline.write(items, name: @cut.name, rate: @cut.project.rate, start: @cut.timecode(0).frames)
    end

    # @return [String] CMX 3600, whose reels and clip names are those of what was written
    def edl
      names = shots.to_h { |shot, output, _| [shot.id, File.basename(output.path)] }
      Mordant::Cut::EDL.write("#{@cut.project.name} #{@cut.name}".upcase, CutList.new(@cut, names:).events)
    end

    private

    # @return [Array<Array(Shot, Output, Stretch)>]
    def shots
      @shots ||= @cut.loaded_shots.filter_map do |shot|
        output = @outputs.find { |one| one.shot_id == shot.id } || @outputs.find { |one| one.shot_id.nil? }
        [shot, output, Stretch.new(@order, output.shot_id)] if output
      end
    end

    def source_start(stretch) = stretch.timeline.shots.first.source_in

    def url(output) = output.path.split("/").map { |part| URI.encode_www_form_component(part).gsub("+", "%20") }.join("/")
  end
end
