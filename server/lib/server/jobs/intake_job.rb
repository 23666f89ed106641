# frozen_string_literal: true

module Server
  # Takes in everything beneath a folder; a broken file does not stop the rest.
  class IntakeJob < Que::Job
    self.maximum_retry_count = 2

    def run(intake_id)
      intake = Intake.fetch(intake_id)
      intake.update!(status: "running", done: 0, refused: 0)
      paths = Intake::Survey.new(intake.media_root, intake.path).paths
      intake.update!(found: paths.size)
      taking = Intake::Taking.new(intake.project, intake.media_root)
      taking.forget(intake.path, paths)
      paths.each do |path|
        clip = taking.call(path)
        intake.update!(done: intake.done + 1, refused: intake.refused + (clip.ready? ? 0 : 1))
      end
      intake.update!(status: "done", message: paths.empty? ? "there is no media beneath this folder" : nil)
    rescue Mordant::Error => e
      intake&.update!(status: "failed", message: e.message)
    end
  end
end
