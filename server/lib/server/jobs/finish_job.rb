# frozen_string_literal: true

module Server
  # Ends an output: encodes what is one file, looks at what was written, and writes its
  # report and checksums beside it.
  class FinishJob < CountedJob
    self.maximum_retry_count = 2

    # Somebody asked for it to stop.
    class Cancelled < StandardError; end

    def work(output_id)
      @output = Output.fetch(output_id)
      return if @output.over?

      @stretch = Stretch.new(@output.order, @output.shot_id)
      encode
      report = checked
      @output.hold_to_sources(@stretch.sources)
      @output.update!(report: written(report).to_h, status: "done", done: @output.frames, finished_at: Time.now)
    rescue Cancelled
      @output.cancelled
    rescue Mordant::Error, SystemCallError => e
      @output.fail(e)
    end

    def set_aside(output_id) = Output.fetch(output_id).fail(REASON)

    private

    # Now and then looks whether somebody asked for it to stop.
    def go_on
      now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      return if @looked && now - @looked < PartJob::REPORT_EVERY

      @looked = now
      raise Cancelled if @output.reload.cancelling
    end

    def parts = @parts ||= Part.of(@output.order, @output.shot_id).pluck(:found)

    def each_found(kind) = parts.flat_map { |found| found.dig(@output.id.to_s, kind) || [] }

    def encode
      writer = @output.writer(@stretch)
      light = Mordant::Deliver::LightLevels.over(each_found("levels"))
      sound = Sound.of(@stretch) unless @output.made_as.format.sequence? || File.exist?(writer.path)
      writer.finish(timecode: @stretch.start, reel: @stretch.reel, light:, audio: sound&.path) { go_on }
    ensure
      sound&.close
    end

    # @return [Mordant::Deliver::Report]
    def checked
      lost = each_found("lost").map(&:first)
      found = Mordant::Deliver::Check.new(@output.writer(@stretch), rate: @output.order.cut.project.rate, first: 0, count: @output.frames, lost:, proof:).call { go_on }
      sheet = @output.made_as
      from = @stretch.cut.project.space.label
      Mordant::Deliver::Report.new({name: @output.path, statement: sheet.statement, from: "#{encodings.join(", ")} through #{from}", beyond: each_found("beyond"),
        light: Mordant::Deliver::LightLevels.over(each_found("levels")), **found}, place: @stretch.method(:place))
    end

    # What the source and the grade it was ordered with make of some frames now.
    def proof
      sheet = @output.made_as
      describe = ->(frame) { @stretch.describe(frame, name: File.basename(@output.path, ".*"), written: @output.order.created_at) }
      edges = Part.of(@output.order, @output.shot_id).order(:first).pluck(:first)
      Mordant::Deliver::Proof.new(sheet, space: @output.order.cut.project.space, count: @output.frames, describe:, edges:, bind: @stretch.method(:bound)) { |width| @stretch.programme([sheet], width:) }
    end

    def encodings
      shots = @stretch.shot ? [@stretch.shot] : @stretch.cut.loaded_shots
      shots.map { |shot| Mordant::Colour.encoding(shot.clip.source_encoding).label }.uniq
    end

    # @param report [Mordant::Deliver::Report]
    # @return [Mordant::Deliver::Report] whose files are there
    def written(report)
      base = @output.file.delete_suffix(@output.made_as.format.extension)
      File.write("#{base}.report.json", report.to_json)
      File.write("#{base}.report.html", report.to_html)
      @output.order.with_lock { Mordant::Deliver::MediaHashList.new(File.dirname(@output.file)).write(report.checksums) }
      report
    end
  end
end
